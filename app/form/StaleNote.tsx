/** Says that another tab changed what an open form shows. */
export function StaleNote({ stale }: { stale: boolean }) {
  return stale ? (
    <p className="note open" role="status">
      This was changed in another tab since you opened it. What you typed stays here; on saving both are put
      together, and you are asked where they disagree.
    </p>
  ) : null;
}
