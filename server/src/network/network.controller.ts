import { Controller, Get, Header, StreamableFile } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';

import { ForAnybody } from '../door/allowed.js';
import { notFound } from '../problems/problem.js';
import { NetworkService } from './network.service.js';

@ApiTags('door')
@Controller('network')
export class NetworkController {
  constructor(private readonly network: NetworkService) {}

  @Get()
  @ForAnybody()
  @ApiOperation({ summary: 'Where other devices find this studio, and the fingerprint of what they must trust' })
  read() {
    const { addresses, fingerprint } = this.network;
    return { addresses, fingerprint };
  }

  @Get('root.crt')
  @ForAnybody()
  @Header('Content-Disposition', 'attachment; filename="waxwing-studio.crt"')
  @ApiOperation({ summary: 'The certificate of this studio’s own authority: no secret' })
  root() {
    const { root } = this.network;
    if (root === null) throw notFound('certificate', 'root');
    return new StreamableFile(Buffer.from(root), { type: 'application/x-x509-ca-cert' });
  }
}
