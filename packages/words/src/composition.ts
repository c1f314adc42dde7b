import { type CompositionFinding, isCaution } from '@fendrix/core';

const percent = (part: number) => `${Math.round(1000 * part) / 10} %`;

/** A finding about the arrangement in words, with its cause and what would mend it. */
export function compositionWords(finding: CompositionFinding, nameOf: (thing: number) => string): string {
  switch (finding.what) {
    case 'tangent':
      return `“${nameOf(finding.a)}” and “${nameOf(finding.b)}” just touch (${percent(finding.gapPart)} apart). Move them clear of each other, or well over each other.`;
    case 'edge':
      return `“${nameOf(finding.thing)}” just touches the ${finding.side} edge. Move it in, or let the edge cut it for certain.`;
    case 'row':
      return `${finding.things.map((thing) => `“${nameOf(thing)}”`).join(', ')} stand in a straight row. Move one of them out where scatter is meant.`;
    case 'tone': {
      const way = finding.stops > 0 ? 'lighter' : 'darker';
      const cure = ': it hardly stands out. Light the background more or less, or the edge.';
      return `Its edge is ${Math.abs(finding.stops).toFixed(1)} stops ${way} than the background${isCaution(finding) ? cure : '.'}`;
    }
    case 'horizon':
      return `The line between table and background runs through it at ${percent(finding.atPart)} of its height. A sweep hides the line; a higher or lower camera moves it.`;
    case 'symmetry':
      return `Its middle is ${Math.abs(finding.offMm).toFixed(1)} mm ${finding.offMm > 0 ? 'right' : 'left'} of the frame's; its halves differ in ${percent(finding.unlikePart)} of its outline.`;
    case 'copy':
      return `${percent(finding.freePart)} of the place for words is quiet background${isCaution(finding) ? ': clear it, or move the words.' : '.'}`;
  }
}
