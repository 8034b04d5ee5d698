import { type KeyboardEvent, type PointerEvent, useState } from "react";
import type { Corners, EnvelopePart, PointRecord, Ticks, Window } from "../api/types";
import { heightAt, windowPath } from "../draw/corners";
import { type Ground, middleTick, nudgePoint, pressBend, pressLine, pressPoint, removePoint } from "../gestures/points";
import { amountText } from "../song/catalogue";
import { song, useSong } from "../song/store";
import { bandFor, positionText, snapTick, tickToX, valueToY, xToTick } from "../song/viewport";
import { Words } from "./Words";

interface Props {
  envelope: EnvelopePart;
  windows: Window[];
  height: number;
  name: string;
  scale: Parameters<typeof amountText>[1];
  line: "stitched" | "solid-line";
}

const roomFor = (a: PointRecord, b: PointRecord | undefined, pxPerTick: number) => b && (b.tick - a.tick) * pxPerTick > 34;

/** One envelope wherever it sounds: its line, its points, its bend marks. */
export function EnvelopeEditor({ envelope, windows, height, name, scale, line }: Props) {
  const curves = useSong((state) => state.preview?.curves[envelope.id] ?? state.curves[envelope.id]) ?? [];
  const touched = useSong((state) => state.preview?.points[envelope.id]);
  const hand = useSong((state) => (state.hand?.envelopeId === envelope.id ? state.hand : null));
  const chosen = useSong((state) => (state.envelopeId === envelope.id ? state.pointIndex : null));
  const pxPerTick = useSong((state) => state.view.pxPerTick);
  const view = { pxPerTick };
  const meter = useSong((state) => state.model.head.meter);
  const catalogue = useSong((state) => state.catalogue);
  const [ghost, setGhost] = useState<{ tick: Ticks; value: number } | null>(null);
  if (!catalogue) return null;

  const band = bandFor(envelope.role, height);
  const plot = (tick: Ticks, value: number): [number, number] => [tickToX(view, tick), valueToY(band, value)];
  const say = (value: number) => amountText(catalogue, scale, envelope.role, value);
  const added = hand?.kind === "add" ? (touched ?? []) : [];
  const points = envelope.points.map((point, i) => (hand?.kind === "add" ? point : (touched?.find((other) => other.index === i) ?? point)));

  const onLine = (event: PointerEvent<SVGElement>, [from, to, position, rate]: Window) => {
    const box = (event.currentTarget.ownerSVGElement as SVGElement).getBoundingClientRect();
    const tick = Math.min(Math.max(snapTick(xToTick(view, event.clientX - box.left), event.altKey ? 0 : song().view.grid), from), to - 1);
    return { tick, value: heightAt(curves, position + (tick - from) * rate) ?? 0 };
  };

  return (
    <g className={envelope.on ? "" : "off-line"}>
      {windows.map((window) => {
        const ground: Ground = { envelope, window, band };
        const [from, to, position, rate] = window;
        const end = position + (to - from) * rate;
        const path = windowPath(curves, window, plot);
        const onKey = (event: KeyboardEvent, index: number) => {
          if (event.key === "Delete" || event.key === "Backspace") removePoint(envelope.id, index);
          else if (!nudgePoint(ground, index, event.key, event.shiftKey)) return;
          event.preventDefault();
          event.stopPropagation();
        };
        return (
          <g key={from}>
            {band.low < 0 && <path d={`M${plot(from, 0).join(" ")}H${tickToX(view, to)}`} className="zero-line" />}
            <path d={path} className={line} />
            <path
              d={path}
              className="hit-line"
              data-testid={`line-${envelope.id}`}
              onPointerMove={(event) => setGhost(onLine(event, window))}
              onPointerLeave={() => setGhost(null)}
              onPointerDown={(event) => {
                const { tick, value } = onLine(event, window);
                setGhost(null);
                pressLine(event, ground, tick, value);
              }}
            />
            {points.map((point, index) => {
              const next = points[index + 1];
              if (!roomFor(point, next, view.pxPerTick / rate)) return null;
              const middle = middleTick(point, next);
              if (middle < position || middle >= end) return null;
              const [x, y] = plot(from + (middle - position) / rate, heightAt(curves, middle) ?? point.value);
              return (
                <g key={`bend-${index}`} className="mark" transform={`translate(${x} ${y})`}>
                  <title>{`Bend this segment (${point.shape}); double-click makes it straight`}</title>
                  <path d="M-4.5 0L0 -4.5L4.5 0L0 4.5Z" className="handle" />
                  <circle
                    r={13}
                    className="hit"
                    style={{ cursor: "ns-resize" }}
                    data-testid={`bend-${envelope.id}-${index}`}
                    onPointerDown={(event) => pressBend(event, ground, index)}
                  />
                </g>
              );
            })}
            {points.map((point, index) => {
              if (point.tick < position || point.tick > end) return null;
              const [x, y] = plot(from + (point.tick - position) / rate, point.value);
              return (
                <g
                  key={`point-${index}`}
                  transform={`translate(${x} ${y})`}
                  className={`mark ${chosen === index ? "chosen" : ""}`}
                  tabIndex={0}
                  role="button"
                  aria-label={`${name} point ${index + 1} of ${points.length}: ${say(point.value)} at ${positionText(meter, point.tick)}`}
                  onKeyDown={(event) => onKey(event, index)}
                  onPointerDown={(event) => pressPoint(event, ground, index)}
                >
                  <title>{`Move this point: ${say(point.value)} at ${positionText(meter, point.tick)}; double-click removes it`}</title>
                  {line === "stitched" ? <circle r={4.6} className="handle" /> : <rect x={-4.2} y={-4.2} width={8.4} height={8.4} className="handle" />}
                  <circle r={15} className="hit" data-testid={`point-${envelope.id}-${index}`} />
                </g>
              );
            })}
            {ghost && !hand && ghost.tick >= from && ghost.tick < to && (
              <g pointerEvents="none">
                <circle cx={tickToX(view, ghost.tick)} cy={valueToY(band, ghost.value)} r={4.6} className="handle" strokeDasharray="2 2" />
                <Words x={tickToX(view, ghost.tick)} y={valueToY(band, ghost.value)} height={height} text={`add a point ${say(ghost.value)} · ${positionText(meter, ghost.tick)}`} />
              </g>
            )}
            {added.map((point) =>
              point.tick >= position && point.tick <= end ? (
                <circle key={`new-${point.index}`} cx={tickToX(view, from + (point.tick - position) / rate)} cy={valueToY(band, point.value)} r={4.6} className="handle" />
              ) : null,
            )}
            {hand?.windowFrom === from && touched?.[0] && touched[0].tick >= position && touched[0].tick <= end && (
              <Words
                x={tickToX(view, from + (touched[0].tick - position) / rate)}
                y={valueToY(band, touched[0].value)}
                height={height}
                text={hand.kind === "bend" ? `bend ${touched[0].shape === "curved" ? (touched[0].curve ?? 0).toFixed(2) : touched[0].shape}` : `${touched[0].text} · ${touched[0].position}`}
              />
            )}
          </g>
        );
      })}
    </g>
  );
}

/** An envelope shown behind the one being edited. */
export function EnvelopeAside({ corners, windows, height, role }: { corners: Corners; windows: Window[]; height: number; role: string }) {
  const pxPerTick = useSong((state) => state.view.pxPerTick);
  const view = { pxPerTick };
  const band = bandFor(role, height);
  return windows.map((window) => (
    <path key={window[0]} d={windowPath(corners, window, (tick, value) => [tickToX(view, tick), valueToY(band, value)])} className="stitched aside-line" pointerEvents="none" />
  ));
}
