import { notification } from 'antd';
import { createContext, use, type ReactNode } from 'react';

/** What tells of something that happened and goes by itself; antd's `notification`. */
export type Notices = ReturnType<typeof notification.useNotification>[0];

const Context = createContext<Notices | null>(null);

/** Notices for all that stands in it, at the bottom right: the way to what they speak of is at the top. */
export function NoticesProvider({ children }: { readonly children: ReactNode }) {
  const [notices, place] = notification.useNotification({ placement: 'bottomRight' });
  return (
    <Context value={notices}>
      {place}
      {children}
    </Context>
  );
}

/** @throws {Error} outside of a {@link NoticesProvider}, which is a mistake of the page. */
export function useNotices(): Notices {
  const notices = use(Context);
  if (!notices) throw new Error('Notices are told within NoticesProvider only');
  return notices;
}
