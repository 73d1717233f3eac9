// Packages that are published for import alone: Jest looks for require first, then for import.
module.exports = (request, options) => {
  try {
    return options.defaultResolver(request, options);
  } catch {
    return options.defaultResolver(request, { ...options, conditions: [...(options.conditions ?? []), 'import'] });
  }
};
