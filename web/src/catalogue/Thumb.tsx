import css from './Thumb.module.css';

/** An item's picture in small, beside its name: it says nothing that the name does not. */
export function Thumb({ picture }: { picture: string }) {
  return <img className={css.thumb} src={`/api/catalogue/pictures/${picture}`} alt="" loading="lazy" />;
}
