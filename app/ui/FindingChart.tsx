import { useEffect, useRef } from 'react';
import type { Finding } from '~core/account/finding';
import { Chart, type ChartInput, chartFonts, chartHeight, findingChartConfig } from './findingChart';
import './chart.css';

interface Props {
  finding: Finding;
  lanes: ChartInput['lanes'];
  per: string;
  /** names are hidden: nothing marks the control */
  blind?: boolean;
  /** the finding in words, for those who don't see the picture */
  caption: string;
}

/** A finding drawn: every unit as its tile, mean and interval below, the band of differences too small to matter. */
export function FindingChart({ finding, lanes, per, blind, caption }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let chart: Chart<'scatter', { x: number; y: number }[]> | null = null;
    let gone = false;
    const draw = async () => {
      await chartFonts();
      const [place, paper] = [box.current, canvas.current];
      if (gone || !place || !paper) return;
      chart?.destroy();
      const width = place.clientWidth;
      paper.style.width = `${width}px`;
      const height = chartHeight({ finding, lanes }, width);
      place.style.height = `${height}px`;
      paper.style.height = `${height}px`;
      paper.width = width;
      paper.height = height;
      chart = new Chart(
        paper,
        findingChartConfig({ finding, lanes, per, blind, scale: window.devicePixelRatio || 1 }, width),
      );
      paper.dataset.drawn = 'yes';
    };
    let drawnWidth = 0;
    const observer = new ResizeObserver(([size]) => {
      const width = Math.round(size?.contentRect.width ?? 0);
      if (width === drawnWidth) return;
      drawnWidth = width;
      void draw();
    });
    if (box.current) observer.observe(box.current);
    return () => {
      gone = true;
      observer.disconnect();
      chart?.destroy();
    };
  }, [finding, lanes, per, blind]);
  return (
    <figure className="figure-box" style={{ margin: 0 }}>
      <div ref={box} className="chart-box">
        <canvas ref={canvas} role="img" aria-label={caption} style={{ position: 'absolute', inset: 0 }} />
      </div>
    </figure>
  );
}
