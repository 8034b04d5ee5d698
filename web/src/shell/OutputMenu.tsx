import { Speaker } from "lucide-react";
import { Button, Dialog, DialogTrigger, Popover } from "react-aria-components";
import { canChooseDevice, LATENCIES, type Latency, readDevices, setOutput, useOutput } from "../sound/output";
import { player } from "../sound/player";

/** Where sound goes, and how soon: the two choices, by themselves. */
export function OutputChoices() {
  const { latency, device, devices } = useOutput();
  const take = (change: Parameters<typeof setOutput>[0]) => {
    setOutput(change);
    player.outputChanged();
  };
  return (
    <div className="flex flex-col gap-2">
      <label className="flex flex-col text-xs">
        <span className="faint">Sound comes</span>
        <select
          className="select select-sm pointer-coarse:h-11"
          value={latency}
          onChange={(event) => take({ latency: event.target.value as Latency })}
        >
          {Object.entries(LATENCIES).map(([id, words]) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {canChooseDevice() && (
        <label className="flex flex-col text-xs">
          <span className="faint">Output</span>
          <select
            className="select select-sm pointer-coarse:h-11"
            value={device}
            onFocus={() => void readDevices()}
            onChange={(event) => take({ device: event.target.value })}
          >
            <option value="">the system's own</option>
            {devices.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}

/** The same behind a button of the top bar. */
export function OutputMenu() {
  return (
    <DialogTrigger onOpenChange={(open) => open && void readDevices()}>
      <Button className="btn btn-ghost btn-sm btn-square" aria-label="Sound output" aria-haspopup="dialog">
        <Speaker size={15} />
      </Button>
      <Popover placement="bottom" className="rounded-box border border-base-300 bg-base-100 p-3 shadow">
        <Dialog aria-label="Sound output" className="w-56 outline-none">
          <OutputChoices />
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
