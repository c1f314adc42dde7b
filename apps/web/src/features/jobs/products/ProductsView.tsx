import type { JobProduct } from '@fendrix/contract';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import ListItemButton from '@mui/material/ListItemButton';
import ListItemText from '@mui/material/ListItemText';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { ProductThumbnail } from '../../../shared/render/ProductThumbnail';
import { changeRow, freeId, withoutRow } from '../../../shared/rows';
import { Section } from '../../../shared/Section';
import { useEditJob, useJob } from '../state/openJob';
import { AddProduct } from './AddProduct';
import { ProductEditor } from './ProductEditor';

/** The products of a job: form, materials, what matters about them, preparation. */
export function ProductsView() {
  const job = useJob();
  const edit = useEditJob();
  const [search, setSearch] = useSearchParams();
  const [adding, setAdding] = useState(false);
  const chosen = job.products.find(({ id }) => id === search.get('of')) ?? job.products[0];
  const choose = (id: string) => setSearch({ of: id }, { replace: true });

  function add(body: JobProduct['body'], goods: JobProduct['goods']) {
    const id = freeId(job.products, body.name, 'product');
    const product: JobProduct = {
      id,
      name: body.name,
      goods,
      body: { ...body, id },
      detail: 'side',
      shine: 'satin',
      clear: 'opaque',
      fragile: '',
      spares: 0,
      usedUp: 0,
      steps: [],
    };
    if (edit((now) => ({ ...now, products: [...now.products, product] }))) choose(id);
    setAdding(false);
  }

  function remove({ id }: JobProduct) {
    edit((now) => ({
      ...now,
      products: withoutRow(now.products, id),
      shots: now.shots
        .map((shot) => ({ ...shot, products: shot.products.filter((own) => own !== id) }))
        .filter((shot) => shot.products.length > 0),
      ...(now.series?.products
        ? { series: { ...now.series, products: now.series.products.filter((own) => own !== id) } }
        : {}),
    }));
  }

  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { md: '250px minmax(0, 1fr)' }, gap: 4 }}>
      <Section
        title="Products"
        action={
          <Button size="small" onClick={() => setAdding(true)}>
            Add a product
          </Button>
        }
      >
        <List dense disablePadding>
          {job.products.map((product) => (
            <ListItem key={product.id} disablePadding divider>
              <ListItemButton
                selected={product.id === chosen?.id}
                onClick={() => choose(product.id)}
                sx={{ gap: 1.5, px: 1 }}
              >
                <ProductThumbnail product={product.body} />
                <ListItemText primary={product.name} secondary={stepsLeft(product)} />
              </ListItemButton>
            </ListItem>
          ))}
        </List>
      </Section>
      {chosen ? (
        <ProductEditor
          key={chosen.id}
          product={chosen}
          used={job.shots.filter(({ products }) => products.includes(chosen.id)).length}
          onChange={(changes, gesture) =>
            edit((now) => ({ ...now, products: changeRow(now.products, chosen.id, changes) }), gesture)
          }
          onRemove={() => remove(chosen)}
        />
      ) : (
        <Typography sx={{ color: 'text.secondary', maxWidth: 520 }}>
          No product yet. Add what is to be photographed: take a form from the kit and change its measures, or
          read a body from a file. From form and finish come the view, the camera and what it will mirror.
        </Typography>
      )}
      {adding && <AddProduct onTake={add} onClose={() => setAdding(false)} />}
    </Box>
  );
}

function stepsLeft({ steps }: JobProduct): string {
  const left = steps.filter(({ done }) => !done).length;
  if (steps.length === 0) return 'no preparation listed';
  return left === 0 ? 'prepared' : `${left} of ${steps.length} steps to do`;
}
