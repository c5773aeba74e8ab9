'use client';
import { useOpenJobLater } from '@/ui/following';
import { Gallery } from './Gallery';
import { OrnamentPicture, ornamentsShown } from './OrnamentPicture';

/** Shows the chosen ornament in the colour of the blank; a press opens all of them. */
export function OrnamentField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (id: string) => void;
}) {
  const material = useOpenJobLater((s) => s.job?.blank.material ?? 'oak');
  return (
    <Gallery
      words={{
        label,
        title: 'Ornaments',
        search: 'Search the ornaments',
        choose: 'Choose an ornament',
        nothing: 'No ornament is called that. Try another word, such as water, bird or border.',
      }}
      things={ornamentsShown}
      value={value}
      picture={(id, size) => <OrnamentPicture id={id} size={size} material={material} />}
      onChange={onChange}
    />
  );
}
