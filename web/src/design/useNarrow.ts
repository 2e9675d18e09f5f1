import { useMediaQuery } from '@mantine/hooks';

const matches = (query: string) => window.matchMedia(query).matches;
const PHONE = '(max-width: 640px)';
const ONE_LEAF = '(max-width: 900px)';

/** Whether lines are cards here, as on a phone; as in the style sheets. */
export const usePhone = () => useMediaQuery(PHONE, matches(PHONE));

/** Whether one leaf is shown at a time. */
export const useOneLeaf = () => useMediaQuery(ONE_LEAF, matches(ONE_LEAF));
