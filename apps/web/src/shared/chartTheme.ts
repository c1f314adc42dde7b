const LETTERS = { fontSize: 12, fontFamily: '"Archivo Variable", system-ui, sans-serif' };

/** Colours and letters of charts, as the page round them has them now: an ECharts theme, and the dashes of a limit. */
export function chartTheme(element: Element) {
  const styles = getComputedStyle(element);
  const colour = (name: string) => styles.getPropertyValue(`--mui-palette-${name}`).trim() || '#808080';
  const quiet = { ...LETTERS, color: colour('text-secondary') };
  const line = { lineStyle: { color: colour('divider') } };
  const axis = { axisLabel: quiet, nameTextStyle: quiet, axisLine: line, axisTick: line, splitLine: line };
  return {
    theme: {
      color: ['primary-main', 'text-primary', 'text-secondary', 'error-main'].map(colour),
      textStyle: LETTERS,
      legend: { textStyle: quiet },
      categoryAxis: axis,
      valueAxis: axis,
      line: { lineStyle: { width: 2.5 } },
      tooltip: {
        backgroundColor: colour('background-paper'),
        borderColor: colour('divider'),
        textStyle: { ...LETTERS, color: colour('text-primary') },
      },
    },
    limit: {
      symbol: 'none',
      label: { ...quiet, formatter: '{b}', position: 'insideEndTop' as const },
      lineStyle: { color: colour('warning-main') },
    },
  };
}
