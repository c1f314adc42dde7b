import { ProductThumbnail } from '../../shared/render/ProductThumbnail';
import { ThumbnailPlace } from '../../shared/render/Thumbnail';
import { SetThumbnail } from '../sets';
import { jobsApi } from './api';

const WIDTH = 96;

/** What a job is about: its first picture as it is set up, or its first product; nothing while it has neither. */
export const JobThumbnail = ({ id }: { id: string }) => (
  <ThumbnailPlace width={WIDTH}>
    <Stored id={id} />
  </ThumbnailPlace>
);

function Stored({ id }: { id: string }) {
  const job = jobsApi.useReadJobQuery(id).data?.document;
  const setId = job?.shots.find((shot) => shot.setId)?.setId;
  if (setId) return <SetThumbnail id={setId} />;
  const [product] = job?.products ?? [];
  return product ? <ProductThumbnail product={product.body} width={WIDTH} /> : null;
}
