import type { Corners, CurvePatch, Normalised, Px, Ticks, Window } from "../api/types";

/** The place of the last corner at or before a tick, -1 before the first. */
export function cornerBefore(corners: Corners, tick: Ticks): number {
  let low = 0;
  let high = corners.length / 2;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (corners[middle * 2] <= tick) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** The height of a line chain at a tick; level beyond its ends. */
export function heightAt(corners: Corners, tick: Ticks): Normalised | null {
  if (corners.length === 0) return null;
  const i = cornerBefore(corners, tick);
  if (i < 0) return corners[1];
  if (i * 2 + 2 >= corners.length) return corners[i * 2 + 1];
  const [t0, v0, t1, v1] = corners.slice(i * 2, i * 2 + 4);
  return t1 > t0 ? v0 + ((v1 - v0) * (tick - t0)) / (t1 - t0) : v1;
}

/** The lowest and the highest value of a line chain over a stretch; null for a chain of nothing. */
export function rangeOf(corners: Corners, from: Ticks, to: Ticks): [low: Normalised, high: Normalised] | null {
  const [first, last] = [heightAt(corners, from), heightAt(corners, to)];
  if (first === null || last === null) return null;
  let [low, high] = [Math.min(first, last), Math.max(first, last)];
  for (let i = Math.max(0, cornerBefore(corners, from) + 1); i * 2 < corners.length && corners[i * 2] <= to; i++)
    [low, high] = [Math.min(low, corners[i * 2 + 1]), Math.max(high, corners[i * 2 + 1])];
  return [low, high];
}

/**
 * A chain with stretches of it replaced. Where the chain jumps at an end of a stretch, it keeps the side that lies
 * outside.
 */
export function patched(corners: Corners, patches: CurvePatch[]): Corners {
  return patches.reduce((chain, [from, to, middle]) => {
    let left = cornerBefore(chain, from);
    while (left > 0 && chain[left * 2] === from && chain[left * 2 - 2] === from) left--;
    let right = cornerBefore(chain, to);
    if (right < 0 || chain[right * 2] !== to) right++;
    return [...(from > 0 ? chain.slice(0, left * 2 + 2) : []), ...middle, ...chain.slice(right * 2)];
  }, corners);
}

/** Chains with their stretches replaced, of those that are known. */
export const putTogether = (
  known: Record<string, Corners>,
  patches: Record<string, CurvePatch[]>,
): Record<string, Corners> =>
  Object.fromEntries(
    Object.entries(patches).flatMap(([id, list]) => (known[id] ? [[id, patched(known[id], list)]] : [])),
  );

type Plot = (tick: Ticks, value: Normalised) => [Px, Px];

const point = ([x, y]: [Px, Px]) => `${x.toFixed(1)} ${y.toFixed(1)}`;

/** The SVG path of what a window shows of an envelope's line chain. */
export function windowPath(corners: Corners, [from, to, position, rate]: Window, plot: Plot): string {
  if (corners.length === 0) return "";
  const end = position + (to - from) * rate;
  const points = [plot(from, heightAt(corners, position) as number)];
  for (let i = cornerBefore(corners, position) + 1; i * 2 < corners.length && corners[i * 2] <= end; i++) {
    const jumpsAtEnd = corners[i * 2] === end && i * 2 + 2 < corners.length && corners[i * 2 + 2] === end;
    points.push(plot(from + (corners[i * 2] - position) / rate, corners[i * 2 + 1]));
    if (jumpsAtEnd) return `M${points.map(point).join("L")}`;
  }
  if (corners[corners.length - 2] < end || cornerBefore(corners, end) * 2 + 2 < corners.length)
    points.push(plot(to, leftHeight(corners, end)));
  return `M${points.map(point).join("L")}`;
}

/** The height a chain comes to from the left. */
function leftHeight(corners: Corners, tick: Ticks): Normalised {
  let i = cornerBefore(corners, tick);
  if (i < 0) return corners[1];
  while (i > 0 && corners[i * 2] === tick && corners[i * 2 - 2] === tick) i--;
  return corners[i * 2] === tick ? corners[i * 2 + 1] : (heightAt(corners, tick) as number);
}
