/** Styles of the block library's keyboard navigation: once a page, and before anything is drawn, for it refuses them later. */
import { KeyboardNavigation } from '@blockly/keyboard-navigation';

KeyboardNavigation.registerKeyboardNavigationStyles();
