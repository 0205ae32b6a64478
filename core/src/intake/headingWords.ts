/** "flightDate", "flight_date" → " flight date ": words apart, lower case, without accents. */
export function wordsOf(heading: string): string {
  return ` ${heading
    .replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2')
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .replace(/[^\p{L}\d]+/gu, ' ')
    .trim()} `;
}

const anyOf = (...words: string[]): RegExp => new RegExp(` (?:${words.join('|')}) `);

/** What headings say in English, German, French, Spanish, Italian, Dutch and Portuguese. */
export const HEADING = {
  time: anyOf(
    'time|date|datetime|timestamp|stamp|ts|t|when|at|epoch|unix|start|begin|from|measured|recorded|observed|opened',
    'zeit|zeitpunkt|zeitstempel|datum|uhrzeit|stichtag|beginn|von',
    'heure|horodatage|quand|debut|fecha|hora|cuando|inicio|data|ora|quando|inizio|tijd|tijdstip|begintijd',
    'day|month|year|quarter|week|yearmonth|tag|monat|jahr|quartal|woche|jour|mois|annee|an|trimestre|semaine',
    'dia|mes|ano|semana|giorno|mese|anno|settimana|dag|maand|jaar|kwartaal',
  ),
  /** Times that seldom date a row. */
  laterTime: anyOf(
    'end|until|to|finish|finished|received|created|updated|modified|changed|birth|due|imported|closed|closing|uploaded|stored',
    'ende|bis|empfangen|fin|hasta|fine|einde|tot|geburtsdatum|dob|expires|expiry|release',
  ),
  year: anyOf('year|yr|yyyy|jahr|annee|an|ano|anno|jaar'),
  month: anyOf('month|mon|mo|mm|monat|mois|mes|mese|maand'),
  day: anyOf('day|dd|dy|mday|tag|jour|dia|giorno|dag'),
  hour: anyOf('hour|hr|hh|h|stunde|std|heure|hora|ora|uur'),
  minute: anyOf('minute|minutes|min|mi|minuto'),
  duration: anyOf(
    'duration|length|elapsed|run|runtime|dauer|laufzeit|duree|duracion|durata|duur|hours|downtime|uptime',
  ),
  /** Columns that name what is measured, or of which thing. */
  name: anyOf(
    'metric|tag|tagname|point|channel|sensor|meter|quantity|measure|measurement',
    'asset|machine|device|equipment|line|unit id|station|site|plant|location|place|symbol|city|region|host|instance',
    'messstelle|messgrosse|kanal|anlage|maschine|gerat|linie|standort|ort|zahler',
    'appareil|ligne|lieu|capteur|canal|maquina|linea|lugar|macchina|luogo|sensore|lijn|plaats',
  ),
  /** Columns that may name a series, or say something else of the row. */
  maybeName: anyOf('name|signal|series|variable|parameter|source|key|category|group|label'),
  position: anyOf('lat|latitude|lon|lng|long|longitude|coordinates|breite|lange|breitengrad|langengrad'),
  unit: anyOf('unit|units|uom|einheit|unite|unidad|unita|eenheid|unidade'),
  remark: anyOf(
    'remark|remarks|note|notes|comment|comments|status|quality|state|flag|description|text|message|reason',
    'bemerkung|kommentar|notiz|qualitat|grund|commentaire|remarque|nota|observacion|commento|opmerking',
  ),
} as const;
