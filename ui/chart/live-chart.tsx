import {
  type ChartData,
  Chart as ChartJs,
  type ChartOptions,
  LinearScale,
  LineController,
  LineElement,
  type Plugin,
  PointElement,
} from "chart.js";
import { type ComponentProps, useEffect, useRef } from "react";

ChartJs.register(LinearScale, LineController, LineElement, PointElement);

/** Lines, and points without one. */
export type Drawn = "line" | "scatter";

/** What is drawn over a chart: it may change without the chart being laid out anew. */
export type Overlay = Pick<Plugin<Drawn>, "beforeDatasetsDraw" | "afterDatasetsDraw">;

/**
 * A chart that is made once. Other data or options are laid out in place; where
 * only what lies over it changes, it is painted and nothing more.
 * Data, options and overlay are to keep their identity while they say the same.
 */
export function LiveChart({
  data,
  options,
  overlay,
  onCanvas,
  ...canvas
}: {
  data: ChartData<Drawn>;
  options: ChartOptions<Drawn>;
  overlay?: Overlay;
  onCanvas?: (canvas: HTMLCanvasElement | null) => void;
} & Omit<ComponentProps<"canvas">, "ref">) {
  const at = useRef<HTMLCanvasElement>(null);
  const made = useRef<ChartJs<Drawn> | null>(null);
  const given = useRef({ overlay, onCanvas });
  given.current = { overlay, onCanvas };
  useEffect(() => {
    const { current: place } = at;
    if (place === null) return;
    const over: Plugin<Drawn> = {
      id: "overlay",
      beforeDatasetsDraw: (...drawing) => given.current.overlay?.beforeDatasetsDraw?.(...drawing),
      afterDatasetsDraw: (...drawing) => given.current.overlay?.afterDatasetsDraw?.(...drawing),
    };
    const chart = new ChartJs<Drawn>(place, { type: "line", data: { datasets: [] }, plugins: [over] });
    made.current = chart;
    given.current.onCanvas?.(place);
    return () => {
      chart.destroy();
      made.current = null;
      given.current.onCanvas?.(null);
    };
  }, []);
  useEffect(() => {
    const { current: chart } = made;
    if (chart === null) return;
    chart.data = data;
    chart.options = options;
    chart.update("none");
  }, [data, options]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what lies over it is painted from what was given last
  useEffect(() => made.current?.draw(), [overlay]);
  return <canvas ref={at} {...canvas} />;
}
