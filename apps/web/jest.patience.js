// What is waited for comes when it comes: on a machine that is busy with other things after more than a second.
require('@testing-library/react-native').configure({ asyncUtilTimeout: 50_000 });
