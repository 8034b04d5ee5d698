/** The sound of every device by itself, as playing uses it: to be rendered and measured. */
export { DEVICE_SOUNDS } from "./devices";
export { loadWorklets } from "./worklets";
