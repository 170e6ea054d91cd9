/** What stands for a picture: its newest proof; while there is none a small picture that is rendered for it, or a blank. */
import { type CSSProperties, useState } from 'react';
import { pictureOf } from './ticket';

interface Props {
  lead: { proof: string; count: number } | null;
  picture: string;
  /** Grows with each change of the picture. */
  changes: number;
  style: CSSProperties;
}

/** The address of a small picture of a picture, as it is after so many changes. */
export const thumbnailOf = (picture: string, changes: number): string =>
  `/api/pictures/${picture}/thumbnail?state=${changes}`;

export function Thumbnail({ lead, picture, changes, style }: Props) {
  const [isShown, setShown] = useState(false);
  if (lead) return <img src={pictureOf({ id: lead.proof, picture_count: lead.count }, 'small')} alt="" style={style} />;
  return (
    <>
      {isShown ? null : <span className="blank" style={style} />}
      <img
        src={thumbnailOf(picture, changes)}
        alt=""
        loading="lazy"
        style={isShown ? style : { ...style, width: 1, height: 1, opacity: 0 }}
        onLoad={() => setShown(true)}
        onError={() => setShown(false)}
      />
    </>
  );
}
