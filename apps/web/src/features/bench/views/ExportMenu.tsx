import type { PlanKind } from '@fendrix/core';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useSnackbar } from 'notistack';
import { useEffect, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { Link, useParams } from 'react-router';
import { fileName, saveFile } from '../../../shared/saveFile';
import { surround } from '../../../shared/theme';
import { useFigure } from '../figures/figureStore';
import type { PictureFormat } from '../picture/pictureFile';
import { useSession } from '../picture/useSession';
import { planFile } from '../plan/planFile';
import { planNames } from '../plan/planNames';
import { benchSet, type WithBench } from '../state/benchSlice';
import { useSetPart } from '../state/hooks';

const PICTURES: readonly { format: PictureFormat; extension: string; words: string }[] = [
  { format: 'png', extension: 'png', words: 'Picture, PNG' },
  { format: 'jpeg', extension: 'jpg', words: 'Picture, JPEG' },
  { format: 'png16', extension: 'png', words: 'Picture, PNG of 16 bits' },
  { format: 'exr', extension: 'exr', words: 'Picture with a layer a light, OpenEXR' },
];

/** Gives out what is seen: the picture as it is by now, the set, and its plans to scale. */
export function ExportMenu() {
  const [button, setButton] = useState<HTMLElement | null>(null);
  const name = useSetPart((set) => set.name);
  const { id = '' } = useParams();
  const store = useStore<WithBench>();
  const session = useSession();
  const picture = useFigure('picture');
  const { enqueueSnackbar } = useSnackbar();
  const close = () => setButton(null);
  const left = useRef<AbortController | null>(null);
  useEffect(() => {
    const abort = new AbortController();
    left.current = abort;
    return () => abort.abort();
  }, []);

  function savePicture({ format, extension }: (typeof PICTURES)[number]) {
    close();
    const signal = left.current?.signal;
    session
      ?.pictureFile(format, signal)
      .then((blob) => saveFile(blob, fileName(name, extension)))
      .catch(() => {
        if (signal?.aborted) return;
        enqueueSnackbar('The picture was not saved: it stopped. Try again.', { variant: 'warning' });
      });
  }

  function savePlan(kind: PlanKind) {
    close();
    const drawn = planOnPage(kind);
    if (!drawn) return;
    const title = `${name}, ${kind === 'above' ? 'from above' : 'from the side'}`;
    const { svg, scale } = planFile(drawn, title, surround.page);
    saveFile(svg, fileName(title, 'svg'), 'image/svg+xml');
    enqueueSnackbar(`The plan is saved at 1:${scale}.`);
  }

  return (
    <>
      <Button
        size="small"
        aria-haspopup="menu"
        aria-expanded={button !== null}
        sx={{ color: surround.text, minWidth: 0 }}
        onClick={({ currentTarget }) => setButton(currentTarget)}
      >
        Export
      </Button>
      <Menu open={button !== null} anchorEl={button} onClose={close}>
        {PICTURES.map((one) => (
          <MenuItem key={one.format} dense disabled={!picture} onClick={() => savePicture(one)}>
            {one.words}
          </MenuItem>
        ))}
        <MenuItem
          dense
          onClick={() => {
            close();
            saveFile(
              JSON.stringify(benchSet.documentOf(store.getState()), null, 2),
              fileName(name, 'json'),
              'application/json',
            );
          }}
        >
          Set with its takes, JSON
        </MenuItem>
        <MenuItem dense component="a" href={`/api/sets/${id}/glb`} download onClick={close}>
          Set in space, glTF
        </MenuItem>
        <MenuItem dense component={Link} to={`/sets/${id}/sheet`} onClick={close}>
          Set sheet, to print or as PDF
        </MenuItem>
        <MenuItem dense component={Link} to={`/sets/${id}/rebuild`} onClick={close}>
          Rebuild with another product
        </MenuItem>
        {(['above', 'side'] as const).map((kind) => (
          <MenuItem
            key={kind}
            dense
            disabled={button !== null && planOnPage(kind) === null}
            onClick={() => savePlan(kind)}
          >
            Plan {kind === 'above' ? 'from above' : 'from the side'} to scale, SVG
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}

const planOnPage = (kind: PlanKind) =>
  document.querySelector<SVGSVGElement>(`svg[aria-label="${planNames[kind]}"]`);
