import { Controller, Delete, Get, Header, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import { ApiQuery, ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { faultsSchema, gaugeCommandSchema, type GaugeCommand, type GaugeMessage, type StandIn, answers } from '@true-ledger/contract';
import type { GaugeFaults } from '@true-ledger/core/measure';
import { Checked } from '../http/checked.js';
import { GaugesService } from './gauges.service.js';

/** Stand-ins for gauges on a wire: held, given faults, and pressed. */
@ApiTags('gauges')
@Controller('api/stand-ins')
export class StandInsController {
  constructor(private readonly gauges: GaugesService) {}

  @Get()
  @Answers(answers.standIns)
  list(): Promise<StandIn[]> {
    return this.gauges.standIns();
  }

  @Put(':id')
  @Answers(answers.standIn)
  hold(@Param('id') id: string, @Checked(faultsSchema) faults: GaugeFaults): Promise<StandIn> {
    return this.gauges.hold(id, faults);
  }

  @Delete(':id')
  @HttpCode(204)
  putAway(@Param('id') id: string): Promise<void> {
    return this.gauges.putAway(id);
  }

  /** Presses the data key of the gauge where it is. */
  @Post('press')
  @Answers(answers.gaugeMessage)
  @HttpCode(200)
  press(@Checked(gaugeCommandSchema) command: GaugeCommand): Promise<GaugeMessage> {
    return this.gauges.press(command.gauge, command.at);
  }

  @ApiQuery({ name: 'worn', required: false, description: '0 freshly honed to 1 polished' })
  @Get(':id/trace')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  trace(@Param('id') id: string, @Query('worn') worn?: string): Promise<string> {
    return this.gauges.trace(id, Math.min(1, Math.max(0, Number(worn) || 0)));
  }
}
