import type { Product } from '@fendrix/contract';
import { formatBearing, parseBearingDeg, scaleTurned, turnedSize } from '@fendrix/core';
import Button from '@mui/material/Button';
import { thingSchema } from '../../../../shared/form/schema';
import { QuantityField } from '../../../../shared/QuantityField';
import { benchActions } from '../../state/benchSlice';
import { changedSince } from '../../state/edit';
import { changeProduct } from '../../state/edits';
import { useBenchDispatch } from '../../state/hooks';
import { plinthKey, reflectorBehind, standOnPlinth, standReflectorBehind } from '../../state/placing';
import { edit } from '../../state/thunks';
import { KeepInKit } from './KeepInKit';
import { LengthField } from './LengthField';
import { ProductMaterials } from './ProductMaterials';
import { AllFigures, type PanelProps, RemoveButton, StandFields, Title } from './ThingFields';

const SHOWN = new Set(['id', 'positionM', 'turnDeg']);

const KIND_WORDS: Record<Product['kind'], string> = {
  turned: 'turned',
  box: 'box',
  ring: 'ring',
  chain: 'chain',
  stone: 'faceted stone',
  dish: 'dish',
  pieces: 'several pieces',
  cloth: 'cloth',
  water: 'water',
  mesh: 'imported body',
};

export function ProductPanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const product = set.products.find(({ id }) => id === thing.key);
  if (!product) return null;
  const plinth = plinthKey(set, product.id);
  // What is opaque shows nothing of a card behind it.
  const reflector = product.material.kind === 'dielectric' ? reflectorBehind(set, product.id) : null;
  const put = (changed: Product) =>
    dispatch(edit(changeProduct(product.id, (now) => changedSince(product, changed, now))));
  return (
    <>
      <Title name={product.name} kind={KIND_WORDS[product.kind]} />
      <StandFields set={set} thing={thing} heightLabel="lifted by" />
      <QuantityField
        label="turned"
        shown={formatBearing(product.turnDeg)}
        parse={parseBearingDeg}
        example="15 right"
        onCommit={(turnDeg) => put({ ...product, turnDeg })}
      />
      {product.kind === 'turned' && (
        <>
          <LengthField
            label="width over all"
            valueM={turnedSize(product).widthM}
            onCommit={(widthM) => put(scaleTurned(product, { widthM }))}
          />
          <LengthField
            label="height over all"
            valueM={turnedSize(product).heightM}
            onCommit={(heightM) => put(scaleTurned(product, { heightM }))}
          />
        </>
      )}
      <ProductMaterials product={product} />
      <AllFigures
        schema={thingSchema('product')}
        value={product}
        hidden={SHOWN}
        onChange={(changed) => put(changed as Product)}
      />
      {plinth && (
        <Button
          size="small"
          color="inherit"
          sx={{ px: 0, display: 'block' }}
          onClick={() => dispatch(edit(standOnPlinth(product.id, plinth.key)))}
        >
          Stand it on a plinth
        </Button>
      )}
      {reflector && (
        <Button
          size="small"
          color="inherit"
          sx={{ px: 0, display: 'block' }}
          onClick={() => {
            if (dispatch(edit(standReflectorBehind(product.id)))) {
              dispatch(benchActions.selected({ kind: 'sheet', key: reflector.tag }));
            }
          }}
        >
          Put a reflector cut to its shape behind it
        </Button>
      )}
      <KeepInKit entry={{ what: 'product', thing: product }} />
      <RemoveButton thing={thing} />
    </>
  );
}
