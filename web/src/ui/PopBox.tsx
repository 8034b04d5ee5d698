import type { ReactNode } from "react";
import { Button, Dialog, DialogTrigger, Popover } from "react-aria-components";

interface Props {
  label: string;
  title: string;
  look: string;
  /** What the button shows. */
  face: ReactNode;
  children: ReactNode;
}

/** A button behind which a small box with fields stands. Escape and a press beside it close it. */
export function PopBox({ label, title, look, face, children }: Props) {
  return (
    <DialogTrigger>
      <Button aria-label={label} className={look}>
        <span title={title} className="contents">
          {face}
        </span>
      </Button>
      <Popover className="popover" offset={6}>
        <Dialog aria-label={label} className="pop-box">
          {children}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
