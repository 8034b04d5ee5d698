import { BookOpen } from "lucide-react";
import { useState } from "react";
import { Button, Dialog, Heading, Modal, ModalOverlay, Switch } from "react-aria-components";
import { EVERYWHERE, KEYED } from "../commands";
import {
  changeKey,
  type KeyId,
  keyOf,
  keyText,
  resetKeys,
  switchSingleKeys,
  useKeyList,
  useKeyMap,
  written,
} from "../state/keyMap";

/** The keys, each to be changed; and whether they act by themselves. */
export function KeyList() {
  const open = useKeyList((state) => state.open);
  const map = useKeyMap();
  return (
    <ModalOverlay
      isOpen={open}
      onOpenChange={(next) => useKeyList.setState({ open: next })}
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
          <div className="gap-8 sm:columns-2">
            {KEYED.map(([group, , list]) => (
              <section key={group} className="mb-4 break-inside-avoid">
                <h3 className="faint text-xs">{group}</h3>
                {list
                  .filter(({ key, held }) => key ?? held)
                  .map(({ id, words, what, key, held }) => (
                    <p key={id} className="flex items-center justify-between gap-3 py-0.5">
                      <span>
                        {words} <span className="faint text-xs">{what}</span>
                      </span>
                      {key ? <KeyButton id={key} words={words} /> : <kbd className="shrink-0 text-xs">{held}</kbd>}
                    </p>
                  ))}
              </section>
            ))}
            <section className="break-inside-avoid">
              <h3 className="faint text-xs">Everywhere</h3>
              {EVERYWHERE.map(([keys, words]) => (
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

/** The key of a command, which a press and another key change. */
function KeyButton({ id, words }: { id: KeyId; words: string }) {
  const map = useKeyMap();
  const [asked, setAsked] = useState(false);
  const text = keyText(keyOf(id, map));
  return (
    <Button
      className="btn btn-xs min-w-12 shrink-0"
      aria-label={`${words}: ${text}; press to change`}
      onPress={() => setAsked(true)}
      onBlur={() => setAsked(false)}
      onKeyDown={(event) => {
        const key = asked ? written(event) : null;
        if (key === null) return event.continuePropagation();
        changeKey(id, key);
        setAsked(false);
      }}
    >
      {asked ? "press a key" : text}
    </Button>
  );
}
