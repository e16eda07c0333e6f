// A WebSocket server that sends what it hears to everybody else, and does nothing more; it prints its port.
import { WebSocketServer } from 'ws';

const server = new WebSocketServer({ port: 0, host: '127.0.0.1' }, () =>
  console.log(server.address().port),
);
server.on('connection', (socket) => {
  socket.on('message', (data) => {
    const text = data.toString();
    for (const other of server.clients) if (other !== socket) other.send(text);
  });
});
