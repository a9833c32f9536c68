import { BarChart, LineChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { init, use as register, type EChartsCoreOption } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';

register([BarChart, LineChart, GridComponent, MarkLineComponent, TooltipComponent, CanvasRenderer]);

/** A chart that follows its place's size; `label` says in words what it shows. */
export function Chart({
  option,
  label,
  height,
}: {
  option: EChartsCoreOption;
  label: string;
  height: number;
}) {
  const place = useRef<HTMLDivElement>(null);
  const chart = useRef<ReturnType<typeof init> | null>(null);
  useEffect(() => {
    if (!place.current) return;
    const drawn = init(place.current);
    chart.current = drawn;
    const watch = new ResizeObserver(() => drawn.resize());
    watch.observe(place.current);
    return () => {
      watch.disconnect();
      drawn.dispose();
      chart.current = null;
    };
  }, []);
  useEffect(() => chart.current?.setOption(option), [option]);
  return <div ref={place} role="img" aria-label={label} style={{ height, width: '100%' }} />;
}
