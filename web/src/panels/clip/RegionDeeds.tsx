import { ClipboardPaste, Copy, CopyPlus, Crop, Layers, Merge, Scissors, Split, VolumeX } from "lucide-react";
import type { RegionPart } from "../../api/types";
import { copy, duplicate, join, layOut, mute, oneClip, paste, separate, splitAtPlayhead } from "../../gestures/regions";
import { carriedTo } from "../../state/carried";
import { useChoice } from "../../state/choice";
import { keyHint } from "../../state/keyMap";
import type { Lookup } from "../../state/lookup";
import { useSong } from "../../state/song";
import { Deed } from "../../ui/Deed";

const CROPPED = "A clip of just what this region plays";
const TOGETHER = "A clip of what they play, repeats and gaps written out";

/** What is done with the chosen regions. */
export function RegionDeeds({ regions, find }: { regions: RegionPart[]; find: Lookup }) {
  const one = regions.length === 1 ? regions[0] : null;
  const shared = regions.some((region) => find.sharers[region.clip_id] > 1);
  const moves = regions.some((region) => (find.envelopes[`clip/${region.clip_id}`] ?? []).length > 0);
  return (
    <>
      <Deed
        rank="main"
        words="Duplicate"
        icon={<CopyPlus size={14} />}
        title={`Once more, right after itself ${keyHint("again")}`}
        onDo={duplicate}
      />
      <div className="grid grid-cols-2 gap-1">
        <Deed words="Copy" icon={<Copy size={14} />} onDo={copy} />
        <PasteDeed />
        {one && (
          <Deed
            words="Split"
            icon={<Scissors size={14} />}
            title={`Cut in two where the playhead stands ${keyHint("split")}; at the pointer ${keyHint("split-here")}`}
            onDo={() => splitAtPlayhead(one)}
          />
        )}
        {one && (
          <Deed
            words="Join"
            icon={<Merge size={14} />}
            title={`With the region that goes on with it ${keyHint("together")}`}
            onDo={() => join(one)}
          />
        )}
        <Deed
          words={one ? "Crop" : "One clip"}
          icon={<Crop size={14} />}
          title={`${one ? CROPPED : TOGETHER}, moves and all ${keyHint("one-clip")}`}
          onDo={oneClip}
        />
        <Deed
          words="Separate"
          icon={<Split size={14} />}
          off={!shared}
          title={`${one ? "A clip of its own" : "A clip of their own, that they share"} ${keyHint("own")}`}
          onDo={() => separate()}
        />
        {!one && (
          <Deed
            words="Each apart"
            icon={<Split size={14} />}
            off={!shared}
            title="A clip of its own for each"
            onDo={() => separate(true)}
          />
        )}
        <Deed
          words="Mute"
          icon={<VolumeX size={14} />}
          title={`Neither material nor moves are heard ${keyHint("quiet")}`}
          pressed={regions.every((region) => region.muted)}
          onDo={mute}
        />
        <Deed
          words="Lay out"
          icon={<Layers size={14} />}
          off={!moves}
          title={`Turn the clip moves into points of the track lanes; what is heard stays ${keyHint("lay-out")}`}
          onDo={layOut}
        />
      </div>
    </>
  );
}

export function PasteDeed() {
  const clipboard = useChoice((state) => state.clipboard);
  const songId = useSong((state) => state.songId);
  const carried = carriedTo(songId);
  return (
    <Deed
      words="Paste"
      icon={<ClipboardPaste size={14} />}
      off={!carried && (!clipboard || !("regions" in clipboard))}
      title={clipboard || !carried ? "Paste at the playhead" : `Paste ${carried.words} of another song at the playhead`}
      onDo={paste}
    />
  );
}
