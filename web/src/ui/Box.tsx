import type { ReactNode } from "react";
import { Button, Dialog, Heading, Modal, ModalOverlay } from "react-aria-components";

/** A box over the song, with a title and a way out. Escape and a press beside it close it too. */
export function Box({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  return (
    <ModalOverlay isOpen onOpenChange={(next) => !next && onClose()} isDismissable className="overlay">
      <Modal className="modal-box max-h-[80dvh] w-full max-w-md overflow-auto">
        <Dialog className="flex flex-col gap-3 outline-none">
          <div className="flex items-center gap-3">
            <Heading slot="title" className="grow text-lg font-bold">
              {title}
            </Heading>
            <Button slot="close" className="btn btn-sm pointer-coarse:h-11">
              Close
            </Button>
          </div>
          {children}
        </Dialog>
      </Modal>
    </ModalOverlay>
  );
}
