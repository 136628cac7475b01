using Vlei.Commands;

return CommandLine.Run(args);
