using Vlei.Commands;

Signals.Quieten();
return CommandLine.Run(args);
