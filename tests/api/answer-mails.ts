/** Answers as mail programs write them, each with what has to become of it. */
export interface MailCase {
  readonly what: string
  /** Lines of the head that are not From, To, Subject, Date and Message-ID. */
  readonly head?: readonly string[]
  readonly body: string | Buffer
  readonly from?: string
  readonly envelope?: string
  /** What the relay in front says; what passes where it is left out, nothing where it is null. */
  readonly results?: string | null
  readonly becomes: Outcome
  /** What stands on the trail of it. */
  readonly comment?: string
}
/** "kept out": not taken, its sender's mail server says why; "told": taken, changes nothing, told why; "silent". */
export type Outcome = 'approved' | 'rejected' | 'sent back' | 'asked' | 'told' | 'kept out' | 'silent'

export const RELAY = 'mx.hallamere.example'
const INES = 'ines.adeyemi@hallamere.example'
const ABOVE = 'Write above this line to answer.'
const OURS = `${ABOVE}\n\nOwen Marsh asks for EUR 260.00.\n\nAnswer with one of these: approved, rejected: why`
const quoted = OURS.split('\n')
  .map((l) => `> ${l}`)
  .join('\n')
const text = (charset = 'utf-8', encoding = '8bit') => [
  'MIME-Version: 1.0',
  `Content-Type: text/plain; charset=${charset}`,
  `Content-Transfer-Encoding: ${encoding}`,
]
const HTML = ['MIME-Version: 1.0', 'Content-Type: text/html; charset=utf-8']
const both = (plain: string, html: string) => ({
  head: ['MIME-Version: 1.0', 'Content-Type: multipart/alternative; boundary="b1"'],
  body: [
    '--b1\nContent-Type: text/plain; charset=utf-8\n',
    plain,
    '--b1\nContent-Type: text/html; charset=utf-8\n',
    html,
    '--b1--',
  ].join('\n'),
})
const withFile = (plain: string, bytes: Buffer) => ({
  head: ['MIME-Version: 1.0', 'Content-Type: multipart/mixed; boundary="b2"'],
  body: [
    '--b2\nContent-Type: text/plain; charset=utf-8\n',
    plain,
    '--b2\nContent-Type: image/jpeg\nContent-Transfer-Encoding: base64\n',
    (bytes.toString('base64').match(/.{1,76}/g) ?? []).join('\n'),
    '--b2--',
  ].join('\n'),
})

export const MAIL_CASES: readonly MailCase[] = [
  // Ways of quoting.
  { what: 'a word and nothing else', body: 'approved', becomes: 'approved' },
  { what: 'no text type said', head: [], body: 'Approved', becomes: 'approved' },
  {
    what: 'quoted below, introduced in English',
    body: `Approved\n\nOn Fri, 27 Nov 2026 at 09:00, Hallamere <buying@hallamere.example> wrote:\n${quoted}`,
    becomes: 'approved',
  },
  {
    what: 'introduced over two lines',
    body: `Approved\n\nOn Fri, 27 Nov 2026 at 09:00, Hallamere\n<buying@hallamere.example> wrote:\n\n${quoted}`,
    becomes: 'approved',
  },
  {
    what: 'introduced in German',
    body: `Genehmigt\n\nAm Fr., 27. Nov. 2026 um 09:00 Uhr schrieb Hallamere <buying@hallamere.example>:\n${quoted}`,
    becomes: 'approved',
  },
  {
    what: 'introduced in French',
    body: `Approuvé\n\nLe ven. 27 nov. 2026 à 09:00, Hallamere <buying@hallamere.example> a écrit :\n${quoted}`,
    becomes: 'approved',
  },
  {
    what: 'the original below a head of its own, not marked',
    body: ['Approved', '', '-----Original Message-----', 'From: Hallamere', 'Sent: Friday', 'To: Ines', '', OURS].join(
      '\n',
    ),
    becomes: 'approved',
  },
  {
    what: 'the same in German',
    body: [
      'Abgelehnt: zu teuer',
      '',
      '________________________________',
      'Von: Hallamere <buying@hallamere.example>',
      'Gesendet: Freitag',
      'An: Ines',
      'Betreff: Re',
      '',
      OURS,
    ].join('\n'),
    becomes: 'rejected',
    comment: 'zu teuer',
  },
  { what: 'quoted without an introduction', body: `Approved\n\n${OURS}`, becomes: 'approved' },
  { what: 'written below what is quoted', body: `${quoted}\n\nApproved`, becomes: 'told' },
  {
    what: 'a signature below two dashes',
    body: 'Approved\n-- \nInes Adeyemi\nRejected: is the name of our band',
    becomes: 'approved',
  },
  { what: 'a closing and a name', body: 'Approved\n\nKind regards\nInes', becomes: 'approved' },
  { what: 'a telephone says what it is', body: 'approved\n\nSent from my telephone', becomes: 'approved' },
  { what: 'lines that end as in the world before', body: 'Approved\r\n\r\nThanks\r\n', becomes: 'approved' },
  // Forms of a letter.
  { what: 'a page alone', head: HTML, body: '<html><body><p>Approved</p></body></html>', becomes: 'approved' },
  {
    what: 'a page that quotes in a block',
    head: HTML,
    body: [
      '<div>Rejected: too dear<br></div>',
      '<div>On Fri, 27 Nov 2026 Hallamere &lt;a@hallamere.example&gt; wrote:<br></div>',
      `<blockquote><p>${ABOVE}</p><p>approved</p></blockquote>`,
    ].join(''),
    becomes: 'rejected',
    comment: 'too dear',
  },
  {
    what: 'a page that quotes below a rule',
    head: HTML,
    body: [
      '<p class="n">Approved</p><hr><p><b>From:</b> Hallamere &lt;a@hallamere.example&gt;<br>',
      '<b>Sent:</b> Friday<br><b>To:</b> Ines<br><b>Subject:</b> For your decision</p>',
      `<p>${ABOVE}</p><p>rejected: why</p>`,
    ].join(''),
    becomes: 'approved',
  },
  {
    what: 'a page with styles and emphasis',
    head: HTML,
    body: '<style>p{color:red}</style><p><b>Approved</b></p><p>&nbsp;</p>',
    becomes: 'approved',
  },
  { what: 'text and page', ...both(`Approved\n\n${quoted}`, '<p>Approved</p>'), becomes: 'approved' },
  { what: 'an empty text beside a page', ...both(' ', '<p>Sent back: name the size</p>'), becomes: 'sent back' },
  {
    what: 'base64',
    head: text('utf-8', 'base64'),
    body: Buffer.from('Zurück: welche Größe?').toString('base64'),
    becomes: 'sent back',
    comment: 'welche Größe?',
  },
  {
    what: 'quoted-printable',
    head: text('utf-8', 'quoted-printable'),
    body: 'Refus=C3=A9 : trop cher, et nous en avons deux en r=C3=A9serve depuis la se=\nmaine derni=C3=A8re',
    becomes: 'rejected',
    comment: 'trop cher, et nous en avons deux en réserve depuis la semaine dernière',
  },
  {
    what: 'Latin-1',
    head: text('iso-8859-1'),
    body: Buffer.from('Abgelehnt: Gebühr fehlt', 'latin1'),
    becomes: 'rejected',
    comment: 'Gebühr fehlt',
  },
  {
    what: 'Windows-1252',
    head: text('windows-1252'),
    body: Buffer.from([...Buffer.from('Rejected: 40 '), 0x80, ...Buffer.from(' more than last time')]),
    becomes: 'rejected',
    comment: '40 € more than last time',
  },
  {
    what: 'UTF-16',
    head: text('utf-16le', 'base64'),
    body: Buffer.from('Genehmigt', 'utf16le').toString('base64'),
    becomes: 'approved',
  },
  {
    what: 'five megabytes of photographs',
    ...withFile('Approved', Buffer.alloc(3_700_000, 7)),
    becomes: 'approved',
  },
  { what: 'a long text below', body: `Approved\n\n${`${quoted}\n`.repeat(3000)}`, becomes: 'approved' },
  {
    what: 'signed, with the text inside',
    head: ['MIME-Version: 1.0', 'Content-Type: multipart/signed; boundary="s"; micalg=sha-256'],
    body: '--s\nContent-Type: text/plain\n\nApproved\n--s\nContent-Type: application/pkcs7-signature\n\nAAAA\n--s--',
    becomes: 'approved',
  },
  // What is said.
  { what: 'a reason', body: 'Rejected: we have two in store', becomes: 'rejected', comment: 'we have two in store' },
  {
    what: 'a reason over several lines',
    body: 'Rejected: we have\ntwo in store.\n\nAsk Tomas.',
    becomes: 'rejected',
    comment: 'we have two in store.\n\nAsk Tomas.',
  },
  { what: 'a word about an approval', body: 'Approved: this week', becomes: 'approved', comment: 'this week' },
  { what: 'sent back', body: 'Sent back: name the size', becomes: 'sent back', comment: 'name the size' },
  {
    what: 'sent back in French',
    body: 'Renvoyé : la taille manque',
    becomes: 'sent back',
    comment: 'la taille manque',
  },
  { what: 'a question', body: 'Does that include freight?', becomes: 'asked', comment: 'Does that include freight?' },
  {
    what: 'a question over two lines',
    body: 'Does that include the freight to the quay, and\nthe seals?\n\nInes',
    becomes: 'asked',
    comment: 'Does that include the freight to the quay, and the seals?',
  },
  {
    what: 'a reason with marks in it',
    body: 'Rejected: <b>no</b> & "why"',
    becomes: 'rejected',
    comment: '<b>no</b> & "why"',
  },
  { what: 'in capitals', body: 'APPROVED', becomes: 'approved' },
  // What is not certain.
  { what: 'nothing', body: '', becomes: 'told' },
  { what: 'nothing but what is quoted', body: quoted, becomes: 'told' },
  { what: 'nothing but a signature', body: '-- \nInes Adeyemi', becomes: 'told' },
  { what: 'not approved', body: 'Not approved', becomes: 'told' },
  { what: 'rejected without a reason', body: 'Rejected', becomes: 'told' },
  { what: 'a condition', body: 'Approved, but only two', becomes: 'told' },
  { what: 'two verdicts', body: 'Approved\nRejected: too dear', becomes: 'told' },
  { what: 'both words in one line', body: 'Approved or rejected', becomes: 'told' },
  { what: 'a verdict further down', body: 'Hello\n\napproved', becomes: 'told' },
  { what: 'something else', body: 'Let us talk on Monday.', becomes: 'told' },
  // Machines.
  { what: 'out of office', head: ['Auto-Submitted: auto-replied'], body: 'Approved', becomes: 'silent' },
  { what: 'out of office, an older way', head: ['Precedence: auto_reply'], body: 'Approved', becomes: 'silent' },
  { what: 'another older way', head: ['X-Autoreply: yes'], body: 'Approved', becomes: 'silent' },
  {
    what: 'a bounce',
    head: ['MIME-Version: 1.0', 'Content-Type: multipart/report; report-type=delivery-status; boundary="r"'],
    body: '--r\nContent-Type: text/plain\n\nApproved\n--r--',
    envelope: '',
    from: 'mailer-daemon@hallamere.example',
    becomes: 'silent',
  },
  { what: 'no sender on the envelope', envelope: '', body: 'Approved', becomes: 'silent' },
  { what: 'a list', head: ['List-Id: <all.hallamere.example>'], body: 'Approved', becomes: 'silent' },
  {
    what: 'a letter that goes around',
    head: Array.from(
      { length: 40 },
      (_, i) => `Received: from a.example by b.example; Fri, 27 Nov 2026 09:00:${10 + i} +0000`,
    ),
    body: 'Approved',
    becomes: 'silent',
  },
  { what: 'Auto-Submitted: no', head: ['Auto-Submitted: no'], body: 'Approved', becomes: 'approved' },
  // Whoever writes.
  {
    what: 'somebody else',
    from: 'owen.marsh@hallamere.example',
    envelope: 'owen.marsh@hallamere.example',
    body: 'Approved',
    becomes: 'kept out',
  },
  { what: 'the owner under her name', envelope: 'owen.marsh@hallamere.example', body: 'Approved', becomes: 'kept out' },
  { what: 'another envelope', envelope: 'x@elsewhere.example', body: 'Approved', becomes: 'kept out' },
  { what: 'two senders', from: `${INES}, owen.marsh@hallamere.example`, body: 'Approved', becomes: 'kept out' },
  {
    what: 'a name that looks like her address',
    from: `"${INES}" <x@elsewhere.example>`,
    envelope: 'x@elsewhere.example',
    body: 'Approved',
    becomes: 'kept out',
  },
  { what: 'the relay says nothing', results: null, body: 'Approved', becomes: 'kept out' },
  {
    what: 'the relay says it is forged',
    results: `${RELAY}; dmarc=fail header.from=hallamere.example`,
    body: 'Approved',
    becomes: 'kept out',
  },
  {
    what: 'another server vouches for it',
    results: 'mx.elsewhere.example; dmarc=pass header.from=hallamere.example',
    body: 'Approved',
    becomes: 'kept out',
  },
  {
    what: 'signed by another domain',
    results: `${RELAY}; dkim=pass header.d=elsewhere.example; dmarc=none`,
    body: 'Approved',
    becomes: 'kept out',
  },
  {
    what: 'signed by hers',
    results: `${RELAY}; dkim=pass header.d=hallamere.example header.s=a; dmarc=none`,
    body: 'Approved',
    becomes: 'approved',
  },
  {
    what: 'sent from hers',
    results: `${RELAY}; spf=pass smtp.mailfrom=${INES}; dkim=none`,
    body: 'Approved',
    becomes: 'approved',
  },
  {
    what: 'what the relay says stands above a forged word',
    results: `${RELAY}; dmarc=fail header.from=hallamere.example`,
    head: [`Authentication-Results: ${RELAY}; dmarc=pass header.from=hallamere.example`],
    body: 'Approved',
    becomes: 'kept out',
  },
  { what: 'her address in capitals', from: INES.toUpperCase(), envelope: INES, body: 'Approved', becomes: 'approved' },
]

let counted = 0
/** A message of RFC 5322, with CRLF throughout. */
export function rawOf(c: Omit<MailCase, 'what' | 'becomes'>, to: string, messageId?: string): Buffer {
  counted += 1
  const results = c.results === undefined ? `${RELAY}; dmarc=pass header.from=hallamere.example` : c.results
  const head = [
    ...(results === null ? [] : [`Authentication-Results: ${results}`]),
    `From: ${c.from ?? `Ines Adeyemi <${INES}>`}`,
    `To: <${to}>`,
    'Subject: Re: For your decision',
    'Date: Fri, 27 Nov 2026 09:00:00 +0000',
    `Message-ID: ${messageId ?? `<case-${counted}@hallamere.example>`}`,
    ...(c.head ?? text()),
  ].join('\r\n')
  const body = typeof c.body === 'string' ? Buffer.from(c.body.replace(/\r?\n/g, '\r\n')) : c.body
  return Buffer.concat([Buffer.from(`${head}\r\n\r\n`), body])
}
export const ENVELOPE = (c: Pick<MailCase, 'envelope'>) => c.envelope ?? INES
