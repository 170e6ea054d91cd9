/** Grain against time: as forecast for the brief as it stands, and how far the running proof has come. */
import type { Brief } from '../../../core/brief/brief';
import { about, duration } from '../../../core/brief/sentence';
import { passEnds } from '../../../core/film/film';
import { Chart } from '../../../ui/chart';
import { forecastOf } from '../../../core/forecast/forecast-of';
import type { ForecastState } from '../use-forecast';

interface Props {
  brief: Brief;
  forecast: ForecastState;
  /** Raw grain after so many seconds, of the proof that renders. */
  soFar: readonly (readonly [seconds: number, grain: number])[];
}

const HEIGHT = 118;
const FARTHEST_SAMPLES = 4096;
const MIN_SAMPLES = 4;

export function GrainChart({ brief, forecast, soFar }: Props) {
  if (!forecast.now) return null;
  const at = (samples: number) => forecast.of({ ...forecastOf(brief), samples, grain: null, minutes: null })!;
  const ahead = passEnds(FARTHEST_SAMPLES)
    .filter((n) => n >= MIN_SAMPLES)
    .map(at)
    .map((f) => [f.renderSeconds, f.grain] as const);
  const { renderSeconds, grain } = forecast.now;
  const half = Math.max(1, Math.ceil(ahead[0]![1] / 2));
  return (
    <Chart
      label={`Grain before denoising against time: about ${grain.toFixed(1)} after ${duration(renderSeconds)}`}
      height={HEIGHT}
      of={JSON.stringify([ahead, soFar, renderSeconds, grain])}
      option={({ ink, soft, line, accent, paper, font }) => ({
        animation: false,
        grid: { left: 30, right: 16, top: 12, bottom: 20 },
        xAxis: {
          type: 'log',
          min: ahead[0]![0],
          max: ahead.at(-1)![0],
          axisLine: { lineStyle: { color: soft } },
          axisTick: { show: false },
          splitLine: { show: false },
          axisLabel: { ...font, hideOverlap: true, formatter: (v: number) => about(v) }
        },
        yAxis: {
          type: 'value',
          min: 0,
          max: 2 * half,
          interval: half,
          axisLine: { show: false },
          splitLine: { lineStyle: { color: line } },
          axisLabel: font
        },
        series: [
          {
            type: 'line',
            data: ahead,
            showSymbol: false,
            lineStyle: { color: ink, width: 1.5, type: 'dashed' },
            markPoint: {
              symbol: 'circle',
              symbolSize: 11,
              itemStyle: { color: accent, borderColor: paper, borderWidth: 2 },
              label: { show: false },
              data: [{ coord: [renderSeconds, grain] }]
            }
          },
          { type: 'line', data: soFar, showSymbol: false, lineStyle: { color: accent, width: 2 } }
        ]
      })}
    />
  );
}
