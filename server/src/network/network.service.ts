/** Where other devices find this studio, and what they must trust. */
import { Inject, Injectable } from '@nestjs/common';

import { CONFIG, type Config } from '../config.js';
import type { Network } from './network-server.js';

@Injectable()
export class NetworkService {
  private network: Network | undefined;

  constructor(@Inject(CONFIG) private readonly config: Config) {}

  opened(network: Network): void {
    this.network = network;
  }

  /** The likeliest first; none while only this machine itself comes in. */
  get addresses(): readonly string[] {
    return this.config.proxy ? [this.config.proxy.origin] : (this.network?.addresses ?? []);
  }

  /** PEM; null where devices trust the certificate anyway. */
  get root(): string | null {
    return this.network?.root ?? null;
  }

  get fingerprint(): string | null {
    return this.network?.root ? this.network.fingerprint : null;
  }
}
