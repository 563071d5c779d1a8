/** Where a change sheet is seen. */
export const changeAddress = (wanted: {
  readonly from: string;
  readonly fromVariant?: string;
  readonly to: string;
  readonly toVariant?: string;
  readonly rack: string;
}): string => `/bench/change?${new URLSearchParams(Object.entries(wanted).filter(([, v]) => v)).toString()}`;
