// Icons need fonts that tests do not load.
jest.mock('@expo/vector-icons', () => ({ MaterialCommunityIcons: () => null }));
jest.mock('@expo/vector-icons/MaterialCommunityIcons', () => ({ __esModule: true, default: () => null }));

// Pages are shown one at a time, without a router around them.
jest.mock('expo-router', () => ({ useRouter: () => ({ push: jest.fn() }), useLocalSearchParams: () => ({ id: 'x' }) }));

// The app runs in a browser; the test environment has no page to listen to.
window.addEventListener ??= () => {};
window.removeEventListener ??= () => {};

// Tests have no workers: what is asked beside the page is worked out at once.
jest.mock('./src/compute/engine', () => ({
  engine: {
    listen: () => () => {},
    nextSeq: () => 1,
    send: () => {},
    advise: async (job, featureId, rack) => require('@tidypath/core').adviseTools(job, featureId, rack),
    drawing: async (text, options) => require('@tidypath/core').importDrawing(text, options),
  },
}));
