import { Component } from '@angular/core';
@Component({ selector: 'fo-series-list', template: '' })
export class SeriesList {}
