/** Devices beside the machine itself: browsers that come in over HTTPS, each with its own cookies. */
import type { Door } from '@waxwing/core/door';
import request from 'supertest';

const CHROME = 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36';

export const PASSPHRASE = 'harbour lantern seventeen';

export class Device {
  private cookie = '';
  private token = '';

  constructor(
    readonly address: string,
    private readonly agent = CHROME,
  ) {}

  /** One request; what it answers. */
  async ask(method: string, path: string, body?: object, headers: Record<string, string> = {}) {
    const http = request(this.address);
    const send = http[method.toLowerCase() as 'get'](path)
      .disableTLSCerts()
      .set({
        'User-Agent': this.agent,
        'X-Waxwing-Token': this.token,
        ...(this.cookie && { Cookie: this.cookie }),
        ...headers,
      });
    const answer = await (body ? send.send(body) : send);
    const [given] = (answer.headers['set-cookie'] as unknown as string[] | undefined) ?? [];
    if (given) this.cookie = given.slice(0, given.indexOf(';'));
    return answer;
  }

  get(path: string) {
    return this.ask('GET', path);
  }

  async door(): Promise<Door> {
    const door = (await this.get('/api/door')).body as Door;
    this.token = door.token ?? '';
    return door;
  }

  async signIn(name: string, passphrase = PASSPHRASE): Promise<number> {
    const { status } = await this.ask('POST', '/api/door/sign-in', { name, passphrase });
    await this.door();
    return status;
  }

  /** With a code that the owner gave. */
  async begin(name: string, code: string): Promise<void> {
    const { status } = await this.ask('POST', '/api/door/recover', { name, code, passphrase: PASSPHRASE });
    if (status !== 200) throw new Error(`the code of ${name} was not taken: ${status}`);
    await this.door();
  }

  /** What a thief would have who copied the browser's cookies. */
  copiedTo(agent: string): Device {
    const thief = new Device(this.address, agent);
    thief.cookie = this.cookie;
    thief.token = this.token;
    return thief;
  }

  /** The cookie as it is, to be tried after it was changed. */
  get held(): string {
    return this.cookie;
  }

  hold(cookie: string): void {
    this.cookie = cookie;
  }
}
