import { Modal, type ModalProps } from '@mantine/core';
import { useEffect } from 'react';

type Props = Omit<ModalProps, 'opened'> & { opened?: boolean };

/** What opened a dialog: of an entry of a menu, which goes with its menu, the menu's own button. */
function opener() {
  const now = document.activeElement;
  const menu = now?.closest('[role=menu]')?.getAttribute('aria-labelledby');
  return menu ? document.getElementById(menu) : now;
}

/** A dialog. Once it is gone the focus is on what opened it, also where the dialog exists only while it is open. */
export function Dialog({ opened = true, closeButtonProps, children, ...rest }: Props) {
  const back = rest.returnFocus !== false;
  useEffect(() => {
    if (!opened || !back) return;
    const before = opener();
    return () => {
      if (before instanceof HTMLElement && before.isConnected) before.focus({ preventScroll: true });
    };
  }, [opened, back]);
  return (
    <Modal opened={opened} closeButtonProps={{ 'aria-label': 'Close', ...closeButtonProps }} {...rest}>
      {children}
    </Modal>
  );
}
