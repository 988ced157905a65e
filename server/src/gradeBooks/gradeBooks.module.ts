import { Module } from '@nestjs/common';
import { GradeBooksController } from './gradeBooks.controller.js';
import { GradeBooksService } from './gradeBooks.service.js';

@Module({ controllers: [GradeBooksController], providers: [GradeBooksService], exports: [GradeBooksService] })
export class GradeBooksModule {}
