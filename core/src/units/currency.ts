/**
 * How money is written, by the regions that write it so. No rates are known here: a sign is only how the reader's prices
 * read, and another sign changes no number.
 */
const SIGNS: Readonly<Record<string, string>> = {
  '€': 'AT BE CY DE EE ES FI FR GR HR IE IT LT LU LV MT NL PT SI SK BG AD MC SM VA ME XK',
  $: 'US EC SV PR GU PA',
  '£': 'GB GG IM JE GI',
  '¥': 'JP CN',
  CHF: 'CH LI',
  kr: 'SE NO DK IS FO GL',
  zł: 'PL',
  Kč: 'CZ',
  Ft: 'HU',
  lei: 'RO MD',
  '₺': 'TR',
  '₴': 'UA',
  '₪': 'IL',
  '₹': 'IN',
  '₩': 'KR',
  CA$: 'CA',
  A$: 'AU NR KI TV',
  NZ$: 'NZ',
  R$: 'BR',
  MX$: 'MX',
  S$: 'SG',
  HK$: 'HK',
  NT$: 'TW',
  R: 'ZA',
};

/** The signs that money may be written with, the usual one first. */
export const CURRENCIES: readonly string[] = Object.keys(SIGNS);

/**
 * The sign that money is written with where a locale is at home; the usual one where its region is not said or not known.
 *
 * @param locale a BCP 47 tag
 * @example currencyOf('en-GB') // '£'
 * @example currencyOf('de-CH') // 'CHF'
 * @example currencyOf('en') // '$'
 * @example currencyOf('not a tag') // '€'
 */
export function currencyOf(locale: string): string {
  let region: string | undefined;
  try {
    // A language without a region is most at home somewhere: en in the US, pl in Poland.
    region = new Intl.Locale(locale).maximize().region;
  } catch {
    region = undefined;
  }
  return CURRENCIES.find((sign) => region && SIGNS[sign]!.split(' ').includes(region)) ?? CURRENCIES[0]!;
}

/** The units of money and of what is counted by it, for a choice of units. */
export const moneyUnits = (sign: string): { readonly money: string; readonly pricePerMass: string } => ({
  money: sign,
  pricePerMass: `${sign}/kg`,
});
