import { type NotificationData, notifications } from '@mantine/notifications';

/** Says something in passing, with a way to close it that has a name. */
export const tell = (message: NotificationData['message'], more: Omit<NotificationData, 'message'> = {}) =>
  notifications.show({ ...more, message, closeButtonProps: { 'aria-label': 'Close' } });
