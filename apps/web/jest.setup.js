// Icons need fonts that tests do not load.
jest.mock('@expo/vector-icons', () => ({ MaterialCommunityIcons: () => null }));
jest.mock('@expo/vector-icons/MaterialCommunityIcons', () => ({ __esModule: true, default: () => null }));

// The app runs in a browser; the test environment has no page to listen to.
window.addEventListener ??= () => {};
window.removeEventListener ??= () => {};
