import { CDK_CONNECTED_OVERLAY_DEFAULT_CONFIG, type CdkConnectedOverlayConfig } from '@angular/cdk/overlay';
import type { ValueProvider } from '@angular/core';

/** How whatever opens beside a phrase stands: within the window whatever comes to be in it, and closed by a press elsewhere. */
const HOW: CdkConnectedOverlayConfig = {
  hasBackdrop: true,
  backdropClass: 'cdk-overlay-transparent-backdrop',
  flexibleDimensions: true,
  growAfterOpen: true,
  push: true,
  viewportMargin: 8,
};

/** For components that open them. */
export const POPOVERS: ValueProvider = { provide: CDK_CONNECTED_OVERLAY_DEFAULT_CONFIG, useValue: HOW };
