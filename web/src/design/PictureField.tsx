import { Button } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useRef } from 'react';
import { messageOf, problemOf } from '../api/client';
import css from './Form.module.css';

interface Props {
  /** Where the picture is shown from; empty while there is none. */
  src: string;
  alt: string;
  /** Says to a screen reader what is chosen. */
  label: string;
  /** The act that leaves it without one. */
  off: string;
  hint: string;
  onFile: (file: File) => Promise<unknown>;
  onOff: () => Promise<unknown>;
}

/** A picture that is chosen from a file, shown, and taken off again; what is wrong with a file stands below it. */
export function PictureField({ src, alt, label, off, hint, onFile, onOff }: Props) {
  const picker = useRef<HTMLInputElement>(null);
  const take = useMutation({ mutationFn: onFile });
  const leave = useMutation({ mutationFn: onOff, onSuccess: () => take.reset() });
  const error = take.error ?? leave.error;
  return (
    <>
      {src && (
        <p>
          <img
            src={src}
            alt={alt}
            style={{ maxWidth: 240, maxHeight: 160, background: '#fff', border: '1px solid var(--rule)' }}
          />
        </p>
      )}
      <input
        ref={picker}
        type="file"
        hidden
        accept=".png,.jpg,.jpeg,.svg,image/png,image/jpeg,image/svg+xml"
        aria-label={label}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) take.mutate(file);
          e.target.value = '';
        }}
      />
      <p className={css.acts}>
        <Button variant="outline" loading={take.isPending} onClick={() => picker.current?.click()}>
          {src ? 'Choose another' : 'Choose a picture'}
        </Button>
        {src && (
          <button type="button" className="link" disabled={leave.isPending} onClick={() => leave.mutate()}>
            {off}
          </button>
        )}
      </p>
      {error && (
        <p className="problem" role="alert">
          {problemOf(error, 'file') ?? messageOf(error)}
        </p>
      )}
      <p className="faded small">{hint}</p>
    </>
  );
}

const LARGE = 1_500_000;
const WIDEST = 1600;

/** A photograph in a size that can be sent; what is small enough, or cannot be drawn here, as it is. */
export async function fitToSend(file: File): Promise<File> {
  if (!/^image\/(jpeg|png|webp)$/.test(file.type)) return file;
  const drawn = await createImageBitmap(file).catch(() => null);
  if (!drawn) return file;
  const scale = Math.min(1, WIDEST / Math.max(drawn.width, drawn.height));
  if (scale === 1 && file.size < LARGE) {
    drawn.close();
    return file;
  }
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(drawn.width * scale));
  canvas.height = Math.max(1, Math.round(drawn.height * scale));
  canvas.getContext('2d')?.drawImage(drawn, 0, 0, canvas.width, canvas.height);
  drawn.close();
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.85));
  return blob ? new File([blob], file.name, { type: blob.type }) : file;
}
