console.log('bench');
