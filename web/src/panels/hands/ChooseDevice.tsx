import { focusOn } from "../../state/focus";
import { devicesAtHand, setAtHand, setSets, useSets } from "../../state/sets";
import { useSong } from "../../state/song";
import { useView } from "../../state/view";

/** Which set is at hand: a device of the track at hand, which is followed, or a set of one's own. */
export function ChooseDevice() {
  const state = useSong();
  const trackId = useView((view) => view.trackId);
  const focus = useView((view) => (trackId ? view.focus[trackId] : undefined));
  const { chosen, own } = useSets();
  const devices = devicesAtHand(state, state.model, trackId, focus);
  const here = setAtHand(state, focus, trackId).addresses[0]?.split("/").slice(0, 2).join("/") ?? "";
  const choose = (value: string) => {
    const [kind, name] = [value.slice(0, 1), value.slice(1)];
    if (kind === "=") return setSets({ chosen: name, page: 0 });
    setSets({ chosen: null, page: 0 });
    const first = devices.find(({ path }) => path === name)?.list[0];
    if (first) focusOn(first.address);
  };
  return (
    <select
      className="select select-sm w-40 pointer-coarse:h-11"
      aria-label="What the eight are of"
      value={chosen ? `=${chosen}` : `/${here}`}
      onChange={(event) => choose(event.target.value)}
    >
      <optgroup label="Devices of the track at hand">
        {devices.map(({ path, name }) => (
          <option key={path} value={`/${path}`}>
            {name}
          </option>
        ))}
      </optgroup>
      {own.length > 0 && (
        <optgroup label="Sets of your own">
          {own.map(({ name }) => (
            <option key={name} value={`=${name}`}>
              {name}
            </option>
          ))}
        </optgroup>
      )}
    </select>
  );
}
