import { BookOpen } from "lucide-react";
import { useState } from "react";
import { Button, Dialog, Heading, Modal, ModalOverlay, Switch } from "react-aria-components";
import { create } from "zustand";
import {
  changeKey,
  type DeedId,
  KEY_DEEDS,
  keyOf,
  keyText,
  resetKeys,
  switchSingleKeys,
  useKeyMap,
  written,
} from "../state/keyMap";

const useOpen = create<{ open: boolean }>(() => ({ open: false }));
export const showKeys = (): void => useOpen.setState({ open: true });

const GROUPS = [...new Set(KEY_DEEDS.map(({ group }) => group))];

/** What means the same everywhere, and cannot be changed. */
const FIXED: [string, string][] = [
  ["Space", "play, stop"],
  ["Home, Page up, Page down", "to the start, a bar back, a bar on"],
  ["Arrows", "move what is chosen by the grid, a hundredth or a bar; with Shift finely"],
  ["Ctrl and arrows", "chosen notes: louder, softer, longer, shorter; with Shift finely"],
  ["Enter", "on a point: its exact value"],
  ["Delete", "take away what is chosen"],
  ["Escape", "drop a drag; let go of what is chosen"],
  ["Ctrl Z, Ctrl Y", "undo, redo"],
  ["Ctrl C, X, V, A, D", "copy, cut, paste, choose all, again"],
  ["in a drag: Shift, Alt, Ctrl", "finely, off the grid, leave a copy; on a line: take the whole segment"],
];

/** The keys, each to be changed; and whether they act by themselves. */
export function KeyList() {
  const open = useOpen((state) => state.open);
  const map = useKeyMap();
  const [asked, setAsked] = useState<DeedId | null>(null);
  return (
    <ModalOverlay
      isOpen={open}
      onOpenChange={(next) => useOpen.setState({ open: next })}
      isDismissable
      className="overlay"
    >
      <Modal className="modal-box max-h-[88dvh] w-full max-w-3xl overflow-auto">
        <Dialog className="flex flex-col gap-4 outline-none">
          <div className="flex flex-wrap items-center gap-3">
            <Heading slot="title" className="grow text-lg font-bold">
              Keys
            </Heading>
            <Switch isSelected={map.single} onChange={switchSingleKeys} className="key-switch">
              <span className="key-switch-track" aria-hidden="true" /> single keys act
            </Switch>
            <Button className="btn btn-sm btn-ghost" onPress={resetKeys}>
              As they were given
            </Button>
            <a className="btn btn-sm btn-ghost" href="/docs" target="_blank" rel="noreferrer">
              <BookOpen size={14} aria-hidden="true" /> Guide
            </a>
            <Button slot="close" className="btn btn-sm">
              Close
            </Button>
          </div>
          <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
            {GROUPS.map((group) => (
              <section key={group}>
                <h3 className="faint text-xs">{group}</h3>
                {KEY_DEEDS.filter((deed) => deed.group === group).map(({ id, words }) => (
                  <p key={id} className="flex items-center justify-between gap-3 py-0.5">
                    {words}
                    <Button
                      className="btn btn-xs min-w-12"
                      aria-label={`${words}: ${keyText(keyOf(id, map))}; press to change`}
                      onPress={() => setAsked(id)}
                      onKeyDown={(event) => {
                        const key = asked === id ? written(event) : null;
                        if (key === null) return event.continuePropagation();
                        changeKey(id, key);
                        setAsked(null);
                      }}
                    >
                      {asked === id ? "press a key" : keyText(keyOf(id, map))}
                    </Button>
                  </p>
                ))}
              </section>
            ))}
            <section>
              <h3 className="faint text-xs">Everywhere</h3>
              {FIXED.map(([keys, words]) => (
                <p key={keys} className="py-0.5">
                  <b>{keys}</b> <span className="faint">{words}</span>
                </p>
              ))}
            </section>
          </div>
        </Dialog>
      </Modal>
    </ModalOverlay>
  );
}
