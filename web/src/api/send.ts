/** Raised when the hand called a sending off. */
export class CalledOff extends Error {}

export interface Sent {
  status: number;
  text: string;
}

/** Sends a file, telling the share that has gone out; `stop` calls it off. */
export function send(
  path: string,
  file: Blob,
  type: string,
  told: (share: number) => void,
  stop: AbortSignal,
): Promise<Sent> {
  return new Promise((done, fail) => {
    const request = new XMLHttpRequest();
    request.open("POST", path);
    request.setRequestHeader("Content-Type", type);
    request.upload.onprogress = ({ loaded, total }) => told(total > 0 ? loaded / total : 0);
    request.onload = () => done({ status: request.status, text: request.responseText });
    request.onerror = () => fail(new TypeError("The server does not answer."));
    request.onabort = () => fail(new CalledOff());
    stop.addEventListener("abort", () => request.abort());
    request.send(file);
  });
}
