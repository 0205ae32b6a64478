declare module '@lhncbc/ucum-lhc' {
  interface UcumUnit {
    readonly magnitude_: number;
    readonly dim_: { readonly dimVec_: readonly number[] | null } | null;
  }
  interface Specified {
    readonly unit: UcumUnit | null;
    readonly origString: string;
    readonly retMsg: readonly string[];
  }
  export const UcumLhcUtils: {
    getInstance(): { getSpecifiedUnit(text: string, why: 'validate'): Specified };
  };
}
