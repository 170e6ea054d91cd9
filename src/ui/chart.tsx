'use client';
/**
 * A chart of ECharts in the colours and type of the page. Drawn anew when what it is of changes; a press or a drag on
 * it tells the place, in its own units.
 */
import type { EChartsCoreOption, EChartsType } from 'echarts/core';
import { useEffect, useRef } from 'react';
import { useDrag } from './use-drag';

// ECharts is large, and many pictures never need it.
const load = async () => {
  const [
    core,
    { LineChart },
    { GridComponent, PolarComponent, LegendComponent, MarkLineComponent, MarkPointComponent },
    { SVGRenderer }
  ] = await Promise.all([
    import('echarts/core'),
    import('echarts/charts'),
    import('echarts/components'),
    import('echarts/renderers')
  ]);
  core.use([
    LineChart,
    GridComponent,
    PolarComponent,
    LegendComponent,
    MarkLineComponent,
    MarkPointComponent,
    SVGRenderer
  ]);
  return core;
};

export interface ChartInk {
  ink: string;
  soft: string;
  line: string;
  accent: string;
  paper: string;
  font: { color: string; fontFamily: string; fontSize: number };
}

interface Props {
  label: string;
  height: number;
  option: (ink: ChartInk) => EChartsCoreOption;
  /** Changes when the option does. */
  of: string;
  /** Where it is pressed along its horizontal axis. */
  onPlace?: (x: number, joins: boolean) => void;
}

export function Chart({ label, height, option, of, onPlace }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType | null>(null);
  const drawn = useRef(option);
  drawn.current = option;
  const draw = useRef(() => {});
  draw.current = () => {
    if (!place.current || !chart.current) return;
    const style = getComputedStyle(place.current);
    const color = (name: string) => style.getPropertyValue(name).trim();
    const soft = color('--ink-3');
    chart.current.setOption(
      drawn.current({
        ink: color('--color-base-content'),
        soft,
        line: color('--color-base-300'),
        accent: color('--color-accent'),
        paper: color('--color-base-100'),
        font: { color: soft, fontFamily: style.fontFamily, fontSize: 11 }
      }),
      true
    );
  };
  useEffect(() => {
    let ended = false;
    void load().then((echarts) => {
      if (ended || !place.current) return;
      chart.current = echarts.init(place.current, null, { renderer: 'svg', height });
      draw.current();
    });
    const observer = new ResizeObserver(() => chart.current?.resize());
    observer.observe(place.current!);
    return () => {
      ended = true;
      observer.disconnect();
      chart.current?.dispose();
      chart.current = null;
    };
  }, [height]);
  useEffect(() => draw.current(), [of]);
  const drag = useDrag<HTMLDivElement>((event, joins) => {
    const box = event.currentTarget.getBoundingClientRect();
    const x = chart.current?.convertFromPixel({ xAxisIndex: 0 }, event.clientX - box.left) as number | undefined;
    if (x !== undefined && Number.isFinite(x)) onPlace?.(x, joins);
  });
  return (
    <div
      ref={place}
      role="img"
      aria-label={label}
      style={{ height, ...(onPlace ? { cursor: 'ew-resize', touchAction: 'none' } : {}) }}
      {...(onPlace ? drag : {})}
    />
  );
}
