/** The picture that was drawn last under each name, with what it shows. */
const drawn = new Map<string, { shows: string; picture: Promise<string> }>();

/**
 * Draws a picture only where what it shows has changed: a review is read anew with every few keys typed in it.
 * @param name of the picture: one is kept for each
 * @param shows all it is drawn from
 */
export function drawnOnce(name: string, shows: unknown, draw: () => Promise<string>): Promise<string> {
  const key = JSON.stringify(shows);
  const last = drawn.get(name);
  if (last?.shows === key) return last.picture;
  const picture = draw();
  drawn.set(name, { shows: key, picture });
  // What went wrong is tried again.
  picture.catch(() => drawn.delete(name));
  return picture;
}
