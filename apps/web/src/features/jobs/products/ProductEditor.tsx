import type { JobProduct } from '@fendrix/contract';
import { cautionsFor } from '@fendrix/core';
import { productCautionWords } from '@fendrix/words';
import ExpandMore from '@mui/icons-material/ExpandMore';
import Accordion from '@mui/material/Accordion';
import AccordionDetails from '@mui/material/AccordionDetails';
import AccordionSummary from '@mui/material/AccordionSummary';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { SelectField } from '../../../shared/form/formParts';
import { SchemaForm } from '../../../shared/form/SchemaForm';
import { thingSchema } from '../../../shared/form/schema';
import { WordsField } from '../../../shared/form/WordsField';
import { QuantityField } from '../../../shared/QuantityField';
import { Section } from '../../../shared/Section';
import { minutesQuantity } from '../quantities';
import { BodyDrawing } from './BodyDrawing';
import { ProfileEditor } from './ProfileEditor';
import { Steps } from './Steps';

/** Set elsewhere: where it stands, its outline, its name. */
const HIDDEN = new Set(['id', 'name', 'positionM', 'turnDeg', 'lean', 'profile', 'bandHeightM']);

interface ProductEditorProps {
  product: JobProduct;
  /** Pictures that show it. */
  used: number;
  onChange(changes: Partial<JobProduct>, gesture?: string | null): void;
  onRemove(): void;
}

/** one product: its form and materials, what matters about it, and how it is prepared. */
export function ProductEditor({ product, used, onChange, onRemove }: ProductEditorProps) {
  const { body } = product;
  return (
    <Box sx={{ minWidth: 0 }}>
      <Section
        title={product.name}
        action={
          <Button
            size="small"
            color="inherit"
            onClick={onRemove}
            aria-label={`Remove ${product.name}${used > 0 ? ` from ${used} pictures too` : ''}`}
          >
            Remove
          </Button>
        }
      >
        <Box sx={{ display: 'grid', gridTemplateColumns: { lg: 'minmax(0, 1fr) 300px' }, gap: 3 }}>
          <Box sx={{ minWidth: 0 }}>
            {body.kind === 'turned' ? (
              <ProfileEditor
                body={body}
                onChange={(changed, gesture) => onChange({ body: changed }, gesture)}
              />
            ) : (
              <BodyDrawing body={body} />
            )}
          </Box>
          <Attributes product={product} onChange={onChange} />
        </Box>
      </Section>
      <Accordion
        disableGutters
        elevation={0}
        square
        sx={{ bgcolor: 'transparent', mb: 3 }}
        slotProps={{ transition: { unmountOnExit: true } }}
      >
        <AccordionSummary expandIcon={<ExpandMore />} sx={{ px: 0, font: 'inherit', fontWeight: 650 }}>
          Measures, materials, labels
        </AccordionSummary>
        <AccordionDetails sx={{ px: 0 }}>
          <SchemaForm
            schema={thingSchema('product')}
            value={body as unknown as Record<string, unknown>}
            hidden={HIDDEN}
            onChange={(changed) => onChange({ body: changed as unknown as JobProduct['body'] })}
          />
        </AccordionDetails>
      </Accordion>
      <Cautions product={product} />
      <Steps product={product} onChange={(steps, gesture) => onChange({ steps }, gesture)} />
    </Box>
  );
}

/** What to take care of with such products. */
function Cautions({ product }: { product: JobProduct }) {
  const cautions = cautionsFor(product);
  if (cautions.length === 0) return null;
  return (
    <Alert severity="warning" icon={false} sx={{ mb: 3 }}>
      {cautions.map((caution) => (
        <Box key={caution}>{productCautionWords[caution]}</Box>
      ))}
      <Box>Local rules and qualified people come first.</Box>
    </Alert>
  );
}

function Attributes({
  product,
  onChange,
}: {
  product: JobProduct;
  onChange(changes: Partial<JobProduct>, gesture?: string): void;
}) {
  const { minutesOnSet } = product;
  return (
    <Box>
      <WordsField
        label="name"
        wide
        value={product.name}
        onCommit={(name, gesture) => onChange({ name, body: { ...product.body, name } }, gesture)}
      />
      <SelectField
        label="kind of product"
        options={['glass', 'metal', 'jewelry', 'garment', 'drink', 'food', 'other']}
        value={product.goods}
        onChange={(goods) => onChange({ goods: goods as JobProduct['goods'] })}
      />
      <SelectField
        label="detail is on"
        hint="Decides the view: side, level; top, from above; both, about 45 degrees"
        options={['side', 'top', 'both']}
        value={product.detail}
        onChange={(detail) => onChange({ detail: detail as JobProduct['detail'] })}
      />
      <SelectField
        label="finish"
        options={['matte', 'satin', 'gloss', 'mirror']}
        value={product.shine}
        onChange={(shine) => onChange({ shine: shine as JobProduct['shine'] })}
      />
      <SelectField
        label="clear or opaque"
        options={['opaque', 'frosted', 'clear']}
        value={product.clear}
        onChange={(clear) => onChange({ clear: clear as JobProduct['clear'] })}
      />
      <QuantityField
        label="time on set"
        hint="How long it looks good under lights; empty if it keeps"
        shown={minutesOnSet === undefined ? '' : minutesQuantity.format(minutesOnSet)}
        parse={minutesQuantity.parse}
        example={minutesQuantity.example}
        onCommit={(minutes) => onChange({ minutesOnSet: minutes })}
        onClear={() => onChange({ minutesOnSet: undefined })}
      />
      <QuantityField
        label="spares"
        shown={String(product.spares)}
        parse={(text) => (/^\d+$/.test(text.trim()) ? Number(text) : null)}
        example="2"
        onCommit={(spares) => onChange({ spares })}
      />
      <WordsField
        label="what may break, mark or melt"
        multiline
        value={product.fragile}
        onCommit={(fragile, gesture) => onChange({ fragile }, gesture)}
      />
    </Box>
  );
}
