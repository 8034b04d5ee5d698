import { barTicks, beatTicks } from "../geometry/viewport";
import { GRIDS } from "../state/grid";
import { useSong } from "../state/song";
import { setView, useView } from "../state/view";

export function GridSelect() {
  const grid = useView((state) => state.grid);
  const auto = useView((state) => state.gridAuto);
  const meter = useSong((state) => state.model.head.meters[0]);
  const ticksOf = (ticks: number | "bar" | "beat"): number => {
    if (ticks === "bar") return barTicks(meter);
    return ticks === "beat" ? beatTicks(meter) : ticks;
  };
  const choose = (value: string) => {
    if (value === "auto") return setView({ gridAuto: true });
    setView({ gridAuto: false, grid: ticksOf(GRIDS.find(([name]) => name === value)?.[1] ?? 0) });
  };
  const plain = GRIDS.find(([, ticks]) => typeof ticks === "number" && ticks === grid);
  const named = plain ?? GRIDS.find(([, ticks]) => ticksOf(ticks) === grid);
  return (
    <label className="faint flex shrink-0 items-center gap-1 text-xs">
      grid
      <select
        className="select select-sm w-28 pointer-coarse:h-11"
        aria-label="Grid"
        title="Alt ignores it for a drag"
        value={auto ? "auto" : (named?.[0] ?? "off")}
        onChange={(event) => choose(event.target.value)}
      >
        <option value="auto">with the zoom</option>
        {GRIDS.map(([name]) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
