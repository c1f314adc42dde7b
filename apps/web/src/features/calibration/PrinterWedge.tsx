import type { Kit, PrintedWedge, Printer } from '@fendrix/contract';
import { fitPrinter, PLAIN_RESPONSE, type PrinterFit, WEDGE_GREYS } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useSnackbar } from 'notistack';
import { useMemo, useState } from 'react';
import { failureMessage } from '../../shared/api';
import { Chart, type ChartOption } from '../../shared/Chart';
import { Choice } from '../../shared/Choice';
import { EditableGrid, type GridColumn } from '../../shared/EditableGrid';
import { QuantityField } from '../../shared/QuantityField';
import { Section } from '../../shared/Section';
import { calibrationApi } from './calibrationApi';
import { CARDS } from './cards';
import type { useHour } from './useHour';

type Hour = ReturnType<typeof useHour>;

/** A patch as it stands in the table: what is not read yet is empty. */
interface PatchRow {
  id: string;
  name: string;
  grey: number;
  upper: number | null;
  lower: number | null;
  sendsBack: string;
}

const NO_WEDGE: PrintedWedge = { cardReflectance: 0.18, card: 0, patches: [] };
const isOfFile = (value: number | null): value is number => value !== null && value >= 0 && value <= 255;

/** The printer of the studio: its wedge is printed, photographed, read, and says what each value sends back. */
export function PrinterWedge({
  kit,
  hour,
  change,
}: Pick<NonNullable<Hour['found']>, 'kit' | 'hour'> & Pick<Hour, 'change'>) {
  const wedge = kit.printer?.wedge ?? NO_WEDGE;
  const response = responseOf(kit, hour.body);
  const fit = useMemo(() => fitPrinter(wedge, response), [wedge, response]);
  /** Patches of which one row is read. */
  const [half, setHalf] = useState<Readonly<Record<number, Pick<PatchRow, 'upper' | 'lower'>>>>({});
  const [readStandIn, { isLoading }] = calibrationApi.useReadStandInWedgeMutation();
  const { enqueueSnackbar } = useSnackbar();
  const keep = (words: string | null, changes: Partial<PrintedWedge>) =>
    change(words, (all) => withPrinter(all, { wedge: { ...(all.printer?.wedge ?? NO_WEDGE), ...changes } }));
  const rows = WEDGE_GREYS.map((grey): PatchRow => {
    const read = wedge.patches.find((one) => one.grey === grey) ?? half[grey];
    const tone = fit?.tones.find((one) => one.grey === grey);
    return {
      id: String(grey),
      name: `value ${grey}`,
      grey,
      upper: read?.upper ?? null,
      lower: read?.lower ?? null,
      sendsBack: tone ? `${percent(tone.reflectance)} ± ${(100 * tone.error).toFixed(2)} %` : '',
    };
  });
  const keepRow = async ({ grey, upper, lower }: PatchRow): Promise<boolean> => {
    if ([upper, lower].some((value) => value !== null && !isOfFile(value))) {
      enqueueSnackbar('What a frame shows of a patch is a value from 0 to 255.', { variant: 'warning' });
      return false;
    }
    const others = wedge.patches.filter((one) => one.grey !== grey);
    if (isOfFile(upper) && isOfFile(lower))
      return keep(null, { patches: [...others, { grey, upper, lower }].sort((a, b) => a.grey - b.grey) });
    setHalf((now) => ({ ...now, [grey]: { upper, lower } }));
    return others.length === wedge.patches.length || keep(null, { patches: others });
  };
  const standIn = async () => {
    try {
      const read = await readStandIn({ cardReflectance: wedge.cardReflectance }).unwrap();
      // What was typed meanwhile stays: the kit has a newer revision then, and refuses this.
      if (await keep('The stand-ins have read the wedge.', read)) setHalf({});
    } catch (error) {
      enqueueSnackbar(failureMessage(error), { variant: 'warning' });
    }
  };
  return (
    <Section
      title="Printer"
      action={
        <>
          {(['A4', 'Letter'] as const).map((paper) => (
            <Button
              key={paper}
              size="small"
              color="inherit"
              component="a"
              href={`/api/calibration/wedge?paper=${paper}`}
              download
            >
              Print the wedge, {paper}
            </Button>
          ))}
          <Button size="small" color="inherit" disabled={isLoading} onClick={() => void standIn()}>
            Let the stand-ins read it
          </Button>
        </>
      }
    >
      <Box sx={{ color: 'text.secondary', maxWidth: 640, mb: 1.5 }}>
        Gradient cards are as dark and as bright as your ink and paper. Print the wedge, photograph it with a
        grey card between its rows, and type the green of each patch, as any program that shows values of 255
        tells it.
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: 'minmax(0, 1fr) minmax(0, 1fr)' }, gap: 4 }}>
        <Box>
          <Box sx={{ maxWidth: 360, mb: 1 }}>
            <Choice
              shown
              label="Card beside it"
              value={String(wedge.cardReflectance)}
              options={[...CARDS]}
              onChoose={(card) => void keep('The card is changed.', { cardReflectance: Number(card) })}
            />
            <QuantityField
              label="the card in the frame"
              hint="The green of the card as the frame shows it, of 255"
              shown={wedge.card > 0 ? String(wedge.card) : ''}
              parse={(text) => {
                const value = Number(text.replace(',', '.'));
                return text.trim() !== '' && value > 0 && value <= 255 ? value : null;
              }}
              example="118 (a value from 1 to 255)"
              onCommit={(card) => void keep(null, { card })}
            />
          </Box>
          <EditableGrid
            label="Patches of the wedge"
            rows={rows}
            columns={COLUMNS}
            onChange={keepRow}
            empty="The wedge has no patches."
          />
        </Box>
        <Findings fit={fit} hasCurve={response !== PLAIN_RESPONSE} printer={kit.printer} change={change} />
      </Box>
    </Section>
  );
}

const COLUMNS: readonly GridColumn<PatchRow>[] = [
  { field: 'grey', title: 'printed', kind: 'number', readOnly: true, width: 80 },
  { field: 'upper', title: 'upper row', kind: 'number', flex: 1, hint: 'What the frame shows of it, of 255' },
  { field: 'lower', title: 'lower row', kind: 'number', flex: 1, hint: 'What the frame shows of it, of 255' },
  { field: 'sendsBack', title: 'sends back', readOnly: true, flex: 1.3 },
];

/** What the wedge says, against the usual ink and paper, and whether the kit counts with it. */
function Findings({
  fit,
  hasCurve,
  printer,
  change,
}: {
  fit: PrinterFit | null;
  /** Whether the curve of the camera is known. */
  hasCurve: boolean;
  printer: Printer | undefined;
} & Pick<Hour, 'change'>) {
  const option = useMemo(() => (fit ? chartOf(fit) : null), [fit]);
  if (!fit || !option)
    return (
      <Box sx={{ color: 'text.secondary' }}>
        With the card and three patches it stands here what each printed value sends back, and how sure that
        is.
      </Box>
    );
  const [ink, paper] = [fit.tones[0], fit.tones.at(-1)];
  const worst = Math.max(...fit.residualStops.map(Math.abs));
  const takeOver = (kit: Kit) =>
    withPrinter(kit, { calibrated: { on: new Date().toISOString().slice(0, 10), tones: fit.tones } });
  return (
    <Box>
      <Box sx={{ fontSize: '0.8125rem', mb: 1 }}>
        Solid ink sends back <span className="number">{percent(ink?.reflectance ?? 0)}</span> percent, bare
        paper <span className="number">{percent(paper?.reflectance ?? 0)}</span> percent. The light fell off
        by <span className="number">{Math.abs(fit.rightStops).toFixed(2)}</span> stops from side to side and
        by <span className="number">{Math.abs(fit.upperStops).toFixed(2)}</span> from row to row: taken out. A
        patch lies at most <span className="number">{worst.toFixed(2)}</span> stops off a curve that never
        falls.
        {!hasCurve &&
          ' Your camera is not calibrated: its curve is taken to be that of sRGB. Calibrate it first, or switch its picture styles off.'}
      </Box>
      <Chart
        label="What each printed value sends back"
        option={option}
        table={{
          heads: ['printed', 'sends back, percent', 'sure to'],
          rows: fit.tones.map(({ grey, reflectance, error }) => [
            String(grey),
            percent(reflectance),
            (100 * error).toFixed(2),
          ]),
        }}
      />
      <Box sx={{ display: 'flex', gap: 1, my: 1 }}>
        <Button
          variant="contained"
          onClick={() => void change('Gradient cards are made of your ink and paper from now on.', takeOver)}
        >
          Take over
        </Button>
        {printer?.calibrated && (
          <Button
            color="inherit"
            onClick={() =>
              void change('The usual ink and paper are back.', (kit) =>
                withPrinter(kit, { calibrated: undefined }),
              )
            }
          >
            Usual ink and paper
          </Button>
        )}
      </Box>
      {printer?.calibrated && (
        <Box role="status" sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          The kit counts with the printer as it was on {printer.calibrated.on}.
        </Box>
      )}
    </Box>
  );
}

const percent = (part: number): string => (100 * part).toFixed(1);

function chartOf({ tones }: PrinterFit): ChartOption {
  return {
    grid: { left: 48, right: 12, bottom: 24, top: 12 },
    xAxis: { type: 'value', max: 255, name: 'printed' },
    yAxis: { type: 'value', name: 'percent' },
    tooltip: { trigger: 'axis' },
    series: [
      {
        type: 'line',
        name: 'sends back',
        symbolSize: 7,
        data: tones.map(({ grey, reflectance }) => [grey, Number((100 * reflectance).toFixed(2))]),
      },
    ],
  };
}

/** The kit with changed figures of its printer. */
function withPrinter(kit: Kit, changes: { [K in keyof Printer]?: Printer[K] | undefined }): Kit {
  const { wedge, calibrated } = { ...kit.printer, ...changes };
  return {
    ...kit,
    printer: { ...(wedge ? { wedge } : {}), ...(calibrated ? { calibrated } : {}) },
  };
}

/** The tone curve of the camera that the hour is read with, where it is calibrated. */
function responseOf({ entries }: Kit, body: string) {
  const entry = entries.find(({ id }) => id === body);
  const thing = entry?.what === 'equipment' && entry.thing.kind === 'body' ? entry.thing : null;
  return thing?.response ?? PLAIN_RESPONSE;
}
