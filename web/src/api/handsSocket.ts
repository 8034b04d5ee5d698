/** A parameter as a surface shows it. */
export interface SurfaceEntry {
  a: string;
  name: string;
  owner: string;
  hue: string;
  v: number;
  text: string;
  /** How it stands, in words; empty where nothing moves it. */
  state: string;
  /** How many steps it has; 0 for none, 1 for a switch. */
  steps: number;
}

/** What a studio tells its surfaces. */
export interface SurfaceState {
  t: "state";
  song: string;
  playing: boolean;
  recording: boolean;
  position: string;
  track: string;
  tracks: { id: string; name: string; hue: string; armed: boolean }[];
  set: { name: string; page: number; pages: number };
  eight: SurfaceEntry[];
  faders: SurfaceEntry[];
  pad: { x: SurfaceEntry | null; y: SurfaceEntry | null };
}

/** What goes over the websocket: from the server itself, from surfaces, and from studios. */
export type Said =
  | { t: "hello"; id: string; studios: number }
  | { t: "came" | "gone"; from: string; role: "studio" | "surface"; name: string }
  | { t: "ask"; from?: string }
  | { t: "touch" | "turn" | "release"; a: string; v: number; age: number; from?: string }
  | { t: "deed"; d: SurfaceDeed; from?: string }
  | { t: "choose"; track?: string; arm?: string; page?: number; from?: string }
  | { t: "values"; position: string; v: Record<string, [value: number, text: string]> }
  | SurfaceState;

export type SurfaceDeed = "play" | "record" | "hand_back";

const AGAIN_MS = 1500;

/** A websocket for hands, that comes back by itself when it breaks off. */
export class HandsSocket {
  private socket: WebSocket | null = null;
  private timer = 0;
  private over = false;

  constructor(
    private readonly songId: number,
    private readonly role: "studio" | "surface",
    private readonly onSaid: (said: Said) => void,
    private readonly onOpen: (open: boolean) => void = () => {},
  ) {
    this.open();
  }

  say(said: Said): void {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(said));
  }

  close(): void {
    this.over = true;
    clearTimeout(this.timer);
    this.socket?.close();
  }

  private open(): void {
    const start = location.origin.replace(/^http/, "ws");
    const name = encodeURIComponent(deviceName());
    const socket = new WebSocket(`${start}/api/songs/${this.songId}/hands?role=${this.role}&name=${name}`);
    this.socket = socket;
    socket.onopen = () => this.onOpen(true);
    socket.onmessage = ({ data }) => {
      try {
        this.onSaid(JSON.parse(data));
      } catch {
        // What is no JSON was not meant for us.
      }
    };
    socket.onclose = () => {
      this.onOpen(false);
      if (!this.over) this.timer = window.setTimeout(() => this.open(), AGAIN_MS);
    };
  }
}

/** What a device calls itself. */
function deviceName(): string {
  const { userAgent: agent } = navigator;
  return (
    /iPhone|iPad/.exec(agent)?.[0] ??
    /Android[^;]*; ([^;)]+)/.exec(agent)?.[1] ??
    /Windows|Macintosh|Linux/.exec(agent)?.[0] ??
    "a device"
  );
}
