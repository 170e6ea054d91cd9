/** Whether a host header names this machine: the application answers to nobody else. */
export const isLocalHost = (host: string): boolean => /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(host);
