import type { CompositionFinding } from '@fendrix/core';

export interface FindingWords {
  text: string;
  /** Something to look at, not only a figure. */
  caution: boolean;
}

const percent = (part: number) => `${Math.round(1000 * part) / 10} %`;

/** A finding about the arrangement in words, with its cause and what would mend it. */
export function findingWords(finding: CompositionFinding, nameOf: (thing: number) => string): FindingWords {
  switch (finding.what) {
    case 'tangent':
      return {
        caution: true,
        text: `“${nameOf(finding.a)}” and “${nameOf(finding.b)}” just touch (${percent(finding.gapPart)} apart). Move them clear of each other, or well over each other.`,
      };
    case 'edge':
      return {
        caution: true,
        text: `“${nameOf(finding.thing)}” just touches the ${finding.side} edge. Move it in, or let the edge cut it for certain.`,
      };
    case 'row':
      return {
        caution: true,
        text: `${finding.things.map((thing) => `“${nameOf(thing)}”`).join(', ')} stand in a straight row. Move one of them out where scatter is meant.`,
      };
    case 'tone': {
      const stops = Math.abs(finding.stops);
      const way = finding.stops > 0 ? 'lighter' : 'darker';
      return {
        caution: stops < 0.5,
        text: `Its edge is ${stops.toFixed(1)} stops ${way} than the background${stops < 0.5 ? ': it hardly stands out. Light the background more or less, or the edge.' : '.'}`,
      };
    }
    case 'horizon':
      return {
        caution: true,
        text: `The line between table and background runs through it at ${percent(finding.atPart)} of its height. A sweep hides the line; a higher or lower camera moves it.`,
      };
    case 'symmetry':
      return {
        caution: Math.abs(finding.offMm) > 2,
        text: `Its middle is ${Math.abs(finding.offMm).toFixed(1)} mm ${finding.offMm > 0 ? 'right' : 'left'} of the frame's; its halves differ in ${percent(finding.unlikePart)} of its outline.`,
      };
    default:
      return {
        caution: finding.freePart < 0.9,
        text: `${percent(finding.freePart)} of the place for words is quiet background${finding.freePart < 0.9 ? ': clear it, or move the words.' : '.'}`,
      };
  }
}
