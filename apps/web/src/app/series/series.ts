import { Component } from '@angular/core';
@Component({ selector: 'fo-series', template: '' })
export class Series {}
