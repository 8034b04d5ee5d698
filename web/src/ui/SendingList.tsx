import { useSending } from "../state/sending";

/** Files on their way to the server, each with how far it is and an end to it. */
export function SendingList() {
  const files = useSending((state) => state.files);
  if (files.length === 0) return null;
  return (
    <ul className="sending" aria-label="Files on their way">
      {files.map(({ id, name, share, stop }) => (
        <li key={id} className="flex items-center gap-3">
          <span className="min-w-0 grow truncate">{share < 1 ? name : `${name}: being stored`}</span>
          <progress className="progress w-24 shrink-0" value={share} max={1} aria-label={`${name} is on its way`} />
          <span className="faint w-10 text-right text-xs">{Math.round(share * 100)} %</span>
          <button type="button" className="btn btn-sm pointer-coarse:h-11" onClick={stop}>
            Cancel
          </button>
        </li>
      ))}
    </ul>
  );
}
