/** A lamp's intensities as lighting people draw them: a polar curve, straight down below, both planes. */
import type { PolarCurve } from '../../../core/lights/web/web';
import { Chart } from '../../../ui/chart';

const HEIGHT = 210;

export function PolarChart({ curve, name }: { curve: PolarCurve; name: string }) {
  return (
    <Chart
      label={`Polar curve of ${name}, at most ${Math.max(...curve.along, ...curve.across).toLocaleString('en')} cd`}
      height={HEIGHT}
      of={JSON.stringify(curve)}
      option={({ ink, line, font }) => {
        const series = (key: keyof PolarCurve, label: string, dash: 'solid' | 'dashed') => ({
          type: 'line' as const,
          name: label,
          coordinateSystem: 'polar' as const,
          showSymbol: false,
          animation: false,
          lineStyle: { color: ink, width: 1.5, type: dash },
          itemStyle: { color: ink },
          data: curve[key].map((candela, i) => [candela, (360 * i) / (curve[key].length - 1) - 180])
        });
        return {
          legend: {
            bottom: 0,
            itemWidth: 22,
            itemHeight: 2,
            data: [
              { name: 'C0 to C180', icon: 'path://M0 0h22v2H0z' },
              { name: 'C90 to C270', icon: 'path://M0 0h6v2H0zM8 0h6v2H8zM16 0h6v2h-6z' }
            ],
            textStyle: font,
            selectedMode: false
          },
          polar: { center: ['50%', '44%'], radius: '74%' },
          // gamma 0 is below, growing both ways
          angleAxis: {
            type: 'value',
            min: -180,
            max: 180,
            startAngle: 90,
            clockwise: false,
            interval: 30,
            axisLine: { lineStyle: { color: line } },
            axisTick: { show: false },
            splitLine: { lineStyle: { color: line } },
            axisLabel: { ...font, formatter: (v: number) => (v % 60 === 0 && v > -180 ? `${Math.abs(v)}°` : '') }
          },
          radiusAxis: {
            min: 0,
            splitNumber: 3,
            axisLine: { show: false },
            axisTick: { show: false },
            splitLine: { lineStyle: { color: line } },
            axisLabel: { ...font, formatter: (v: number) => (v > 0 ? `${v.toLocaleString('en')} cd` : '') }
          },
          series: [series('along', 'C0 to C180', 'solid'), series('across', 'C90 to C270', 'dashed')]
        };
      }}
    />
  );
}
