import { createTransport } from 'nodemailer';

export interface Letter {
  readonly from: string;
  readonly to: string;
  readonly subject: string;
  readonly html?: string;
  readonly text?: string;
  readonly list?: string;
  readonly messageId?: string;
}

/** A mail sender: delivers one letter to a server's port over SMTP, as any mail server would. Rejects with what the server answered. */
export async function sendLetter(port: number, { list, ...letter }: Letter): Promise<void> {
  const transport = createTransport({ host: '127.0.0.1', port, secure: false, ignoreTLS: true });
  try {
    await transport.sendMail({ ...letter, ...(list ? { headers: { 'List-Id': list } } : {}) });
  } finally {
    transport.close();
  }
}
