import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useColorScheme } from '@mui/material/styles';
import { BarChart, type BarSeriesOption, LineChart, type LineSeriesOption } from 'echarts/charts';
import {
  GridComponent,
  type GridComponentOption,
  LegendComponent,
  type LegendComponentOption,
  MarkLineComponent,
  type MarkLineComponentOption,
  TooltipComponent,
  type TooltipComponentOption,
} from 'echarts/components';
import { type ComposeOption, init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useRef, useState } from 'react';
import { chartTheme } from './chartTheme';

use([LineChart, BarChart, GridComponent, TooltipComponent, LegendComponent, MarkLineComponent, SVGRenderer]);

export type ChartOption = ComposeOption<
  | LineSeriesOption
  | BarSeriesOption
  | GridComponentOption
  | TooltipComponentOption
  | LegendComponentOption
  | MarkLineComponentOption
>;

interface ChartProps {
  label: string;
  option: ChartOption;
  /** The same figures as a table: heads and rows. */
  table: { heads: readonly string[]; rows: readonly (readonly string[])[] };
  height?: number;
  /** Lines across the chart at a value of one axis, with their names. */
  limits?: readonly ({ name: string } & ({ xAxis: number | string } | { yAxis: number }))[];
  /** Takes the point pressed, on the curve or in its row of the table. */
  onPick?: { words: string; take(index: number): void };
}

/** Curves or bars, or the same figures as a table for reading aloud and without a mouse. */
export function Chart({ label, option, table, height = 220, limits, onPick }: ChartProps) {
  const { colorScheme } = useColorScheme();
  const picked = useRef(onPick);
  picked.current = onPick;
  const [asTable, setAsTable] = useState(false);
  const holder = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (asTable || !holder.current) return;
    const { theme, limit } = chartTheme(holder.current);
    const chart = init(holder.current, theme, { renderer: 'svg' });
    chart.setOption({ animation: false, ...option });
    if (limits) chart.setOption({ series: [{ markLine: { ...limit, data: [...limits] } }] });
    chart.on('click', ({ dataIndex }) => picked.current?.take(Number(dataIndex)));
    const observer = new ResizeObserver(() => chart.resize());
    observer.observe(holder.current);
    return () => {
      observer.disconnect();
      chart.dispose();
    };
    // Drawn anew where the page changes its colours.
  }, [option, limits, asTable, colorScheme]);
  return (
    <Box>
      {/* Keys keep the two apart: the curves empty their own element when they go. */}
      {asTable ? (
        <Box
          key="table"
          sx={{ maxHeight: height, overflow: 'auto' }}
          tabIndex={0}
          role="region"
          aria-label={label}
        >
          <Box
            component="table"
            sx={{ width: '100%', fontSize: '0.8125rem', '& td, & th': { textAlign: 'right' } }}
          >
            <thead>
              <tr>
                {table.heads.map((head) => (
                  <th key={head}>{head}</th>
                ))}
              </tr>
            </thead>
            <tbody className="number">
              {table.rows.map((row, at) => (
                <tr key={row.join()}>
                  {row.map((cell, index) => (
                    <td key={table.heads[index]}>{cell}</td>
                  ))}
                  {onPick && (
                    <td>
                      <Button
                        size="small"
                        aria-label={`${onPick.words} ${row[0]}`}
                        onClick={() => onPick.take(at)}
                      >
                        {onPick.words}
                      </Button>
                    </td>
                  )}
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      ) : (
        <Box key="curves" ref={holder} role="img" aria-label={label} sx={{ height }} />
      )}
      <Button size="small" color="inherit" onClick={() => setAsTable(!asTable)}>
        {asTable ? 'As a drawing' : 'As a table'}
      </Button>
    </Box>
  );
}
