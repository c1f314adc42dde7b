import { SmallPicture } from '../../shared/render/SmallPicture';
import { ThumbnailPlace } from '../../shared/render/Thumbnail';
import { setsApi } from './api';

const WIDTH = 96;

/** How a stored set looks through its lens; nothing where it cannot be read. */
export const SetThumbnail = ({ id }: { id: string }) => (
  <ThumbnailPlace width={WIDTH}>
    <Stored id={id} />
  </ThumbnailPlace>
);

function Stored({ id }: { id: string }) {
  const { data } = setsApi.useReadSetQuery(id);
  return data ? (
    <SmallPicture set={data.document} width={WIDTH} samples={16} levelled={false} kept label="" />
  ) : null;
}
