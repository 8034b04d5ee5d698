/*
 * Messages as MIDI 1.0 has them; channels from 0, values 0..1. What the controller that ships sends, and what goes back
 * to faders.
 */
const byte = (value: number): number => Math.round(Math.min(Math.max(value, 0), 1) * 127);
const CENTRE = 8192;
const MOST_14 = 16383;

export const controllerBytes = (channel: number, number: number, value: number): number[] => [
  0xb0 | channel,
  number,
  byte(value),
];

/** A pair of controllers: the coarse half, then the fine one. */
export function fineBytes(channel: number, number: number, value: number): number[][] {
  const both = Math.round(Math.min(Math.max(value, 0), 1) * MOST_14);
  return [
    [0xb0 | channel, number, both >> 7],
    [0xb0 | channel, number + 32, both & 127],
  ];
}

/** The pitch wheel: 1/2 is its centre. */
export function bendBytes(channel: number, value: number): number[] {
  const place = Math.min(Math.max(value, 0), 1);
  const raw = Math.round(place <= 0.5 ? place * 2 * CENTRE : CENTRE + (place - 0.5) * 2 * (MOST_14 - CENTRE));
  return [0xe0 | channel, raw & 127, raw >> 7];
}

export const noteBytes = (channel: number, key: number, on: boolean, velocity = 0.8): number[] => [
  (on ? 0x90 : 0x80) | channel,
  key,
  on ? Math.max(1, byte(velocity)) : 0,
];

export const pressureBytes = (channel: number, value: number): number[] => [0xd0 | channel, byte(value)];
