/** How long the picture takes against its fineness; the point is the brief's, and can be dragged. */
import { about, duration } from '../../../core/brief/sentence';
import type { SizeChoice } from '../../../core/catalogue/size-choice';
import { editSize } from '../../../core/output/edit-size';
import { Chart } from '../../../ui/chart';
import type { Brief } from '../../../core/brief/brief';
import { forecastOf } from '../../../core/forecast/forecast-of';
import type { ForecastState } from '../use-forecast';

interface Props {
  brief: Brief;
  forecast: ForecastState;
  onSize: (size: SizeChoice, joins?: boolean) => void;
}

const HEIGHT = 118;
const POINTS = 28;
const PPI = [72, 600] as const;
const PPI_MARKS = [100, 150, 200, 300, 400];
const WIDTHS = [640, 7680] as const;
const WIDTH_MARKS = [1280, 1920, 3840];

export function TimeChart({ brief, forecast, onSize }: Props) {
  const { size } = brief;
  const print = 'ppi' in size;
  const [from, to] = print ? PPI : WIDTHS;
  const at = (x: number) => (print ? editSize(size, { ppi: x }, true) : editSize(size, { side: 'width', px: x }, true));
  const secondsAt = (x: number) => forecast.of(forecastOf({ ...brief, size: at(x) }))?.seconds ?? 0;
  const here = Math.min(to, Math.max(from, print ? size.ppi : size.width_px));
  const data = Array.from({ length: POINTS }, (_, i) => from * (to / from) ** (i / (POINTS - 1))).map((x) => [
    x,
    secondsAt(x)
  ]);
  const now = secondsAt(here);
  const most = data.at(-1)![1]!;
  const unit = print ? 'ppi' : 'px';
  return (
    <Chart
      label={
        `Time against ${print ? 'pixels per inch' : 'width in px'}: ${duration(now)} at ` +
        `${Math.round(here)} ${unit}, ${duration(data[0]![1]!)} at ${from}, ${duration(most)} at ${to}`
      }
      height={HEIGHT}
      of={JSON.stringify([data, here])}
      onPlace={(x, joins) =>
        onSize(
          at(
            print
              ? Math.round(Math.min(to, Math.max(from, x)) / 5) * 5
              : Math.round(Math.min(to, Math.max(from, x)) / 10) * 10
          ),
          joins
        )
      }
      option={({ ink, soft, line, accent, paper, font }) => ({
        animation: false,
        grid: { left: 52, right: 12, top: 12, bottom: 22 },
        xAxis: {
          type: 'log',
          min: from,
          max: to,
          axisLine: { lineStyle: { color: soft } },
          axisTick: { show: false },
          splitLine: { show: false },
          axisLabel: { show: false }
        },
        yAxis: {
          type: 'value',
          min: 0,
          max: most,
          interval: most / 2,
          axisLine: { show: false },
          splitLine: { lineStyle: { color: line } },
          axisLabel: { ...font, formatter: (v: number) => (v === 0 ? '0' : about(v)) }
        },
        series: [
          {
            type: 'line',
            data,
            showSymbol: false,
            smooth: true,
            lineStyle: { color: ink, width: 1.5 },
            markLine: {
              silent: true,
              symbol: 'none',
              lineStyle: { color: line, type: 'solid', width: 1 },
              data: (print ? PPI_MARKS : WIDTH_MARKS).map((x) => ({
                xAxis: x,
                label: { ...font, formatter: String(x), position: 'start', distance: 5 }
              }))
            },
            markPoint: {
              symbol: 'circle',
              symbolSize: 11,
              itemStyle: { color: accent, borderColor: paper, borderWidth: 2 },
              label: { show: false },
              data: [{ coord: [here, now] }]
            }
          }
        ]
      })}
    />
  );
}
