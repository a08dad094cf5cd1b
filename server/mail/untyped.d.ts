declare module 'mailauth/lib/dkim/verify.js' {
  export function dkimVerify(
    raw: Buffer,
    options: { resolver: (name: string, type: string) => Promise<unknown> },
  ): Promise<{
    results: { status: { result: string }; signingDomain?: string; canonBodyLengthLimited?: boolean }[]
  }>
}

declare module 'mailauth/lib/dkim/sign.js' {
  export function dkimSign(
    raw: Buffer,
    options: {
      canonicalization: string
      signatureData: { signingDomain: string; selector: string; privateKey: string; maxBodyLength?: number }[]
    },
  ): Promise<{ signatures: string }>
}

declare module 'mailauth/lib/parse-dkim-headers.js' {
  interface Method {
    value?: string
    header?: Record<string, string | undefined>
    smtp?: Record<string, string | undefined>
  }
  export default function parse(line: string): {
    parsed: { value?: string; spf?: Method; dmarc?: Method; dkim?: Method[] }
  }
}

declare module 'email-reply-parser' {
  export default class EmailReplyParser {
    read(text: string): { getVisibleText(): string }
  }
}
