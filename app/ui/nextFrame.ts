/** Over when the next frame is drawn; where none is (another tab is in front, no screen at all), after a moment. */
export const nextFrame = (): Promise<void> =>
  new Promise((resolve) => {
    const late = setTimeout(resolve, typeof requestAnimationFrame === 'undefined' ? 0 : 50);
    globalThis.requestAnimationFrame?.(() => {
      clearTimeout(late);
      // Behind the frame's own drawing.
      setTimeout(resolve);
    });
  });
