import type { CameraLens, Framing, Job, SeriesPlan, Studio } from '@fendrix/contract';
import {
  bodyFor,
  checkPlace,
  formatLength,
  planSeries,
  productBounds,
  roomForCamera,
  type Series,
} from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Chip from '@mui/material/Chip';
import Skeleton from '@mui/material/Skeleton';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { SelectField } from '../../../shared/form/formParts';
import { SmallPicture } from '../../../shared/render/SmallPicture';
import { Section } from '../../../shared/Section';
import { framed } from '../../../shared/theme';
import { useEquipment } from '../../kit';
import { partQuantity } from '../quantities';
import { CameraChoice } from '../shots/CameraChoice';
import { PlaceChecks } from '../shots/PlaceChecks';
import { useFraming } from '../shots/useStaged';
import { useEditJob, useJob } from '../state/openJob';
import { seriesPictures } from './seriesPictures';

/** Pixels across a picture of the series. */
const PICTURE_WIDTH = 200;

/** Several products before one camera that is set once: order, risers, share of the frame. */
export function SeriesView() {
  const job = useJob();
  const equipment = useEquipment();
  const edit = useEditJob();
  const usual = useFraming(job, job.shots[0] ?? null);
  const { align = 'base', tiltDeg = 0 } = job.series ?? {};
  const framing = job.series?.framing ?? usual;
  const ids = useMemo(
    () => job.series?.products ?? job.products.map(({ id }) => id),
    [job.series, job.products],
  );
  const change = (changes: Partial<SeriesPlan>) =>
    edit((now) => ({ ...now, series: { align, tiltDeg, ...now.series, ...changes } }));
  const series = useMemo(
    () => (framing ? planned(job, ids, framing, tiltDeg, align, equipment?.studio) : null),
    [job, ids, framing, tiltDeg, align, equipment?.studio],
  );
  if (job.products.length === 0) {
    return (
      <Typography sx={{ color: 'text.secondary', maxWidth: 520 }}>
        Add products first. A series puts several of them before one camera that is set once and stays.
      </Typography>
    );
  }
  if (!equipment || !framing) return <Skeleton height={240} />;
  const nameOf = (id: string) => job.products.find((product) => product.id === id)?.name ?? id;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { md: 'minmax(0, 1fr) 340px' }, gap: 4 }}>
      <Box sx={{ minWidth: 0 }}>
        <Section title="Products in the series">
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
            {job.products.map(({ id, name }) => (
              <Chip
                key={id}
                label={name}
                size="small"
                aria-pressed={ids.includes(id)}
                color={ids.includes(id) ? 'primary' : 'default'}
                variant={ids.includes(id) ? 'filled' : 'outlined'}
                onClick={() =>
                  change({ products: ids.includes(id) ? ids.filter((own) => own !== id) : [...ids, id] })
                }
              />
            ))}
          </Box>
        </Section>
        {series ? (
          <>
            <Section title="In this order, the largest first">
              <Table size="small" aria-label="Series">
                <TableHead>
                  <TableRow>
                    <TableCell>Products</TableCell>
                    <TableCell align="right">Riser</TableCell>
                    <TableCell align="right">Fills frame</TableCell>
                    <TableCell />
                  </TableRow>
                </TableHead>
                <TableBody>
                  {series.places.map(({ id, liftM, fillPart, wantsOwnLens }) => (
                    <TableRow key={id}>
                      <TableCell>{nameOf(id)}</TableCell>
                      <TableCell align="right" className="number">
                        {liftM > 0 ? formatLength(liftM) : 'none'}
                      </TableCell>
                      <TableCell align="right" className="number">
                        {partQuantity.format(fillPart)}
                      </TableCell>
                      <TableCell sx={{ color: 'warning.main' }}>
                        {wantsOwnLens ? 'small: a longer lens or a picture of its own' : ''}
                      </TableCell>
                    </TableRow>
                  ))}
                </TableBody>
              </Table>
              <SideBySide job={job} series={series} />
            </Section>
            <Alert severity="info" icon={false}>
              Set up with the first one in place. The lens stands {formatLength(series.placed.distanceM)} from
              the middle of the series, {formatLength(series.placed.camera.positionM[2])} above the table,
              focused at {formatLength(series.placed.camera.focusM)}; mark the foot of the first with tape and
              put each of the others on it.
            </Alert>
            <SeriesChecks
              series={series}
              framing={framing}
              equipment={equipment}
              onTakeLens={(lens) => change({ framing: { ...framing, lens } })}
            />
          </>
        ) : (
          <Typography sx={{ color: 'text.secondary' }}>Choose at least one product.</Typography>
        )}
      </Box>
      <Box>
        <CameraChoice
          {...{ framing, equipment, tiltDeg }}
          body={series?.placed.camera.body ?? framing.body}
          onChange={(next) => change({ framing: { ...framing, ...next } })}
          onTilt={(deg) => change({ tiltDeg: deg })}
        />
        <Section title="What stays on one line">
          <SelectField
            label="in all pictures"
            options={['base', 'centre']}
            value={align}
            onChange={(value) => change({ align: value as SeriesPlan['align'] })}
          />
        </Section>
      </Box>
    </Box>
  );
}

/** What room and lens make of it, with the lens or the order that would do. */
function SeriesChecks({
  series: { placed, places },
  framing,
  equipment,
  onTakeLens,
}: {
  series: Series;
  framing: Framing;
  equipment: NonNullable<ReturnType<typeof useEquipment>>;
  onTakeLens(lens: CameraLens): void;
}) {
  const { room, benchHeightM } = equipment.studio;
  const checks = checkPlace(placed, { ...framing, room, benchHeightM });
  return (
    <>
      {placed.heldBy === 'room' && places.length > 1 && (
        <Alert severity="warning" sx={{ mt: 2 }}>
          The camera stands as far back as the room lets it, and the series does not fit as wished. Take a
          shorter lens, or split the series: the largest products in a row of their own.
        </Alert>
      )}
      <PlaceChecks checks={checks} lenses={equipment.lenses} framing={framing} onTakeLens={onTakeLens} />
    </>
  );
}

/** Each product as the one camera sees it, on its riser, with the middle of the frame. */
function SideBySide({ job, series }: { job: Job; series: Series }) {
  const pictures = useMemo(() => seriesPictures(job, series), [job, series]);
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))', gap: 1.5, mt: 2 }}
    >
      {pictures.map(({ id, name, set }) => (
        <Box key={id}>
          <SmallPicture set={set} width={PICTURE_WIDTH} samples={16} kept label={`${name} in the series`}>
            <path d={`M${PICTURE_WIDTH / 2} 0v2000`} stroke={framed.axis} strokeDasharray="4 3" />
          </SmallPicture>
          <Box sx={{ fontSize: '0.75rem' }}>{name}</Box>
        </Box>
      ))}
    </Box>
  );
}

function planned(
  job: Job,
  ids: readonly string[],
  framing: Framing,
  tiltDeg: number,
  align: 'base' | 'centre',
  studio: Studio | undefined,
): Series | null {
  const items = job.products
    .filter(({ id }) => ids.includes(id))
    .map(({ id, body }) => ({ id, bounds: productBounds({ ...body, positionM: [0, 0, 0] }) }));
  if (items.length === 0) return null;
  const { lens, fillPart, fNumber, personM } = framing;
  const { deliverables } = job.brief;
  return planSeries(items, {
    body: bodyFor(framing, deliverables),
    lens,
    fillPart,
    fNumber,
    tiltDeg,
    align,
    formats: deliverables,
    within: studio && roomForCamera(studio, tiltDeg, personM),
  });
}
