import { clsx } from "clsx";
import { memo, useEffect, useRef } from "react";
import type { PointRecord, Px, Ticks, TouchedPoint } from "../../api/types";
import { bendMark, type Ground, type Hit, inside, outside, pointsWithin, skewMark, xOf, yOf } from "../../geometry/hit";
import { useChoice } from "../../state/choice";
import { choose } from "../../state/choosing";
import { useSong } from "../../state/song";
import { setWishes, useWishes } from "../../state/wishes";
import { type SayPosition, useSayPosition } from "./useSay";

/** With more points than this in view they are drawn as one line of dots, and only chosen ones stand out. */
const MANY = 220;
const NO_PLACES: number[] = [];

interface Props {
  ground: Ground;
  touched?: TouchedPoint[];
  added?: TouchedPoint[];
  hover: Hit | null;
  view: [from: Ticks, to: Ticks];
  round: boolean;
  name: string;
  say: SayPosition;
}

/** The points of an envelope in one window, and the marks in its segments. */
export function Marks({ ground, touched, added, hover, view, round, name, say }: Props) {
  const sayInSong = useSayPosition();
  const { envelope, window } = ground;
  const chosen = useChoice((state) => (state.envelopeId === envelope.id ? state.chosen : NO_PLACES));
  const uneven = useSong((state) => state.uneven[envelope.id]) ?? NO_PLACES;
  const from = inside(window, Math.max(window[0], view[0]));
  const to = inside(window, Math.min(window[1], view[1]));
  const [first, end] = pointsWithin(ground, from, to);
  const moved = new Map(touched?.map((point) => [point.index, point]));
  const at = (index: number): PointRecord => moved.get(index) ?? envelope.points[index];
  const places = Array.from({ length: end - first }, (_, i) => first + i);
  const many = places.length > MANY;
  const picked = new Set(chosen);
  const wished = useWishes(({ point }) =>
    point?.envelopeId === envelope.id && point.windowFrom === window[0] ? point.index : null,
  );
  const wishedMark = useRef<SVGGElement>(null);
  useEffect(() => {
    const mark = wishedMark.current;
    if (wished === null || !mark) return;
    setWishes({ point: null });
    if (document.activeElement instanceof HTMLInputElement) return;
    mark.focus();
    mark.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [wished]);
  const single = many ? places.filter((index) => picked.has(index)).slice(0, MANY) : places;
  const marked = (kind: Hit["kind"], index: number) =>
    hover?.kind === kind && "index" in hover && hover.index === index;
  const told = (index: number) => marked("point", index) || inSegment(index);
  const inSegment = (index: number) =>
    hover?.kind === "segment" && (hover.index === index || hover.index + 1 === index);
  const before = Math.max(0, first - 1);
  return (
    <g pointerEvents="none">
      {many && <Dots ground={ground} first={first} end={end} without={chosen} />}
      {!many &&
        [...(before < first ? [before] : []), ...places].map((index) => {
          const [mark, peak] = touched ? [null, null] : [bendMark(ground, index), skewMark(ground, index)];
          return (
            <g key={`bend-${index}`}>
              {mark && (
                <path
                  d="M-4.5 0L0 -4.5L4.5 0L0 4.5Z"
                  transform={`translate(${mark[0]} ${mark[1]})`}
                  className={`handle ${marked("bend", index) ? "told" : ""}`}
                  data-testid={`bend-${envelope.id}-${index}`}
                />
              )}
              {peak && (
                <path
                  d="M-5 -3L5 -3M0 -3L0 4"
                  transform={`translate(${peak[0]} ${peak[1]})`}
                  className={`handle ${marked("skew", index) ? "told" : ""}`}
                  data-testid={`skew-${envelope.id}-${index}`}
                />
              )}
            </g>
          );
        })}
      {single.map((index) => {
        const point = at(index);
        return (
          <g
            key={`point-${index}`}
            ref={index === wished ? wishedMark : undefined}
            transform={`translate(${xOf(ground, point.tick)} ${yOf(ground, point.value)})`}
            className={clsx("mark", picked.has(index) && "chosen", told(index) && "told")}
            tabIndex={-1}
            role="slider"
            aria-orientation="vertical"
            aria-label={`${name}, point ${index + 1} of ${envelope.points.length}`}
            aria-valuemin={Math.round(ground.band.low * 100)}
            aria-valuemax={Math.round(ground.band.high * 100)}
            aria-valuenow={Math.round(point.value * 100)}
            aria-valuetext={spoken(ground, point, say, sayInSong)}
            data-testid={`point-${envelope.id}-${index}`}
            onFocus={() => !picked.has(index) && choose(envelope.id, index, "only", window[0])}
          >
            <circle r={9.5} className="ring" />
            {round ? (
              <circle r={4.6} className="handle" />
            ) : (
              <rect x={-4.2} y={-4.2} width={8.4} height={8.4} className="handle" />
            )}
          </g>
        );
      })}
      {uneven
        .filter((index) => index >= first && index < end)
        .map((index) => (
          <Warning key={index} x={xOf(ground, at(index).tick)} y={yOf(ground, at(index).value)} />
        ))}
      {added?.map(
        (point) =>
          point.tick >= from &&
          point.tick <= to && (
            <circle
              key={`new-${point.index}`}
              cx={xOf(ground, point.tick)}
              cy={yOf(ground, point.value)}
              r={4.6}
              className="handle"
            />
          ),
      )}
    </g>
  );
}

/** What is said of a point: its value, where it is in its clip and in the song, and the shape of what leaves it. */
function spoken({ envelope, window }: Ground, point: PointRecord, say: SayPosition, sayInSong: SayPosition): string {
  const inSong = sayInSong(Math.round(outside(window, point.tick)));
  const place = envelope.owner.startsWith("clip/") ? `in the clip ${say(point.tick)}, in the song ${inSong}` : inSong;
  return [point.text, place, point.wave ?? point.shape].filter(Boolean).join(", ");
}

/** Very many points, as dots; the chosen ones are drawn by themselves. */
const Dots = memo(
  function Dots({ ground, first, end, without }: { ground: Ground; first: number; end: number; without: number[] }) {
    const left = new Set(without);
    const places = Array.from({ length: end - first }, (_, i) => first + i).filter((index) => !left.has(index));
    const dot = (index: number) => {
      const { tick, value } = ground.envelope.points[index];
      return `M${xOf(ground, tick).toFixed(1)} ${yOf(ground, value).toFixed(1)}h0`;
    };
    return <path d={places.map(dot).join("")} className="dots" />;
  },
  (a, b) =>
    a.first === b.first &&
    a.end === b.end &&
    a.without === b.without &&
    a.ground.envelope === b.ground.envelope &&
    a.ground.pxPerTick === b.ground.pxPerTick,
);

/** A fade that does not start level. */
function Warning({ x, y }: { x: Px; y: Px }) {
  return (
    <g transform={`translate(${x} ${y > 30 ? y - 18 : y + 18})`} className="warning" data-testid="uneven">
      <path d="M0 -7L7 6H-7Z" />
      <path d="M0 -2V2M0 4V4.2" />
    </g>
  );
}
